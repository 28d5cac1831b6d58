'use client';

import { Button, Menu, SegmentedControl, Select } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { Link } from '../../ui/Link';
import { Fragment, useCallback, useEffect, useState } from 'react';
import { toUrl } from '../../client/base';
import { isOfPost, PAPERS, POST_WORDS, toCount, type Post } from 'wattograph-core';
import { useJob } from '../../client/jobContext';
import { hearNews } from '../../client/live';
import { useMay } from '../../client/person';
import { request, requestFile, RequestError } from '../../client/request';
import type { ReleaseLine } from '../../server/releases';
import { useLoomId } from '../../ui/JobShell';
import { ProblemList } from '../../ui/findings/ProblemList';
import { saveBlob } from '../../client/saveFile';
import { ReleaseDialog, readWorkWords } from './ReleaseDialog';
import styles from './Sheets.module.css';

interface Pack {
  revision: string;
  /** what the parts of this loom cost, in words */
  cost: { short: string; whole: string };
  /** what differs from a revision whose print hangs; null: nothing is compared */
  changes: { print: number[]; destroy: { sheet: string; number: number }[] } | null;
  pages: { sheet: string; post: Post; number: number; widthMm: number; heightMm: number; svg: string }[];
}

const LOOPBACK = /^https?:\/\/(localhost|127\.0\.0\.1|\[::1\])(:|\/|$)/;
const ORDER = Object.keys(POST_WORDS) as Post[];

/** The build pack as it prints; release makes a numbered revision. */
export function SheetsStation() {
  const loomId = useLoomId();
  const jobId = useJob(({ id }) => id);
  const version = useJob((state) => state.version);
  const stored = useJob((state) => state.saving);
  const [paper, setPaper] = useState('A4');
  const [release, setRelease] = useState('');
  const [since, setSince] = useState('');
  const [post, setPost] = useState('');
  const [releases, setReleases] = useState<ReleaseLine[]>([]);
  const [pack, setPack] = useState<Pack | null>(null);
  const [problem, setProblem] = useState<RequestError | null>(null);
  /** the file that is being made */
  const [saving, setSaving] = useState<string | null>(null);
  const mayPlan = useMay('plan');
  const [releasing, dialog] = useDisclosure(false);
  // codes on the pages lead where this page was opened from
  const address = typeof window === 'undefined' ? '' : `${window.location.origin}${toUrl('')}`;
  const query = `loom=${encodeURIComponent(loomId)}&paper=${paper}&release=${release}`;
  const pageQuery = `${query}&address=${encodeURIComponent(address)}${since === '' ? '' : `&since=${since}`}`;

  const list = useCallback(
    () =>
      request<ReleaseLine[]>(`/api/jobs/${jobId}/releases`)
        .then(setReleases)
        .catch(() => setReleases([])),
    [jobId],
  );
  useEffect(() => void list(), [list]);
  useEffect(
    () =>
      hearNews((news) => {
        if ((news.topic === 'release' && news.id === jobId) || news.topic === 'again') void list();
      }),
    [jobId, list],
  );
  useEffect(() => {
    const left = new AbortController();
    request<Pack>(`/api/jobs/${jobId}/sheets?${pageQuery}`, undefined, { signal: left.signal })
      .then((made) => {
        setPack(made);
        setProblem(null);
      })
      .catch((error: unknown) => {
        if (!left.signal.aborted && error instanceof RequestError) setProblem(error);
      });
    return () => left.abort();
  }, [jobId, pageQuery, version]);
  const save = async (what: string, path: string) => {
    setSaving(what);
    try {
      const { blob, name } = await requestFile(path);
      saveBlob(name, blob);
      setProblem(null);
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error);
    } finally {
      setSaving(null);
    }
  };

  const posts = pack ? ORDER.filter((one) => pack.pages.some((page) => page.post === one)) : [];
  // what another loom has and this one does not
  const chosen = post === 'crew' || posts.some((one) => one === post) ? post : '';
  const shown = pack
    ? pack.pages.filter((page) => (pack.changes === null || pack.changes.print.includes(page.number)) && isOfPost(page, chosen || null))
    : [];
  const sheets = shown.flatMap(({ sheet, post: at, number }, index) =>
    shown[index - 1]?.sheet === sheet ? [] : [{ sheet, number, begins: shown[index - 1]?.post === at ? null : POST_WORDS[at] }],
  );
  return (
    <div>
      <style>{`@page { size: ${paper.toLowerCase()}; margin: 0; }`}</style>
      <div className={`${styles.bar} no-print`}>
        <Select
          aria-label="Revision"
          w={200}
          value={release}
          allowDeselect={false}
          onChange={(value) => setRelease(value ?? '')}
          data={[
            { value: '', label: `draft, version ${version}` },
            ...[...releases].reverse().map(({ number, author, heldWires }) => ({
              value: String(number),
              label: `revision ${number}, ${author}${heldWires > 0 ? `, ${toCount(heldWires, 'wire')} held` : ''}`,
            })),
          ]}
        />
        {releases.length > 0 && (
          <Select
            aria-label="Which pages"
            w={230}
            value={since}
            allowDeselect={false}
            onChange={(value) => setSince(value ?? '')}
            data={[
              { value: '', label: 'all pages' },
              ...[...releases]
                .reverse()
                .filter(({ number }) => String(number) !== release)
                .map(({ number }) => ({ value: String(number), label: `changed since revision ${number}` })),
            ]}
          />
        )}
        <Select
          aria-label="Cards of"
          w={170}
          value={chosen}
          allowDeselect={false}
          onChange={(value) => setPost(value ?? '')}
          data={[
            { value: '', label: 'whole pack' },
            { value: 'crew', label: 'all cards of the crew' },
            ...posts.map((one) => ({ value: one, label: POST_WORDS[one] })),
          ]}
        />
        <SegmentedControl aria-label="Paper" data={Object.keys(PAPERS)} value={paper} onChange={setPaper} />
        <span className="faint" title={pack?.cost.whole}>
          {pack
            ? [
                shown.length < pack.pages.length
                  ? `${shown.length} of ${toCount(pack.pages.length, 'page')}`
                  : toCount(pack.pages.length, 'page'),
                pack.cost.short,
              ]
                .filter(Boolean)
                .join(' · ')
            : ''}
        </span>
        <div className={styles.right}>
          <Menu position="bottom-end">
            <Menu.Target>
              <Button variant="default" loading={saving === 'csv'}>
                Export
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item component="a" href={toUrl(`/api/jobs/${jobId}/export?what=job&release=${release}`)}>
                Job (JSON)
              </Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=wires&${query}`)}>Wire list (CSV)</Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=cuts&${query}`)}>Cut list (CSV)</Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=parts&${query}`)}>Parts to order (CSV)</Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=labels&${query}`)}>
                Labels to print (CSV)
              </Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=lists&${query}`)}>All lists (XLSX)</Menu.Item>
              <Menu.Item onClick={() => void save('csv', `/api/jobs/${jobId}/export?what=build&${query}`)}>Build (JSON)</Menu.Item>
              <Menu.Label>Drawings of a sheet (DXF)</Menu.Label>
              {sheets.map(({ sheet }) => (
                <Menu.Item
                  key={sheet}
                  onClick={() => void save('csv', `/api/jobs/${jobId}/sheets?format=dxf&${query}&sheet=${encodeURIComponent(sheet)}`)}
                >
                  {sheet}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
          <Button
            variant="default"
            loading={saving === 'pdf'}
            onClick={() => void save('pdf', `/api/jobs/${jobId}/sheets?format=pdf&${pageQuery}&post=${chosen}`)}
          >
            Save PDF
          </Button>
          <Button variant="default" onClick={() => window.print()}>
            Print
          </Button>
          {releases.length > 0 && (
            <Button variant="default" component={Link} href={`/jobs/${jobId}/floor?loom=${loomId}`}>
              Open the floor
            </Button>
          )}
          {mayPlan && (
            <Button disabled={stored !== 'saved'} onClick={dialog.open}>
              Release revision {(releases.at(-1)?.number ?? 0) + 1}
            </Button>
          )}
        </div>
      </div>
      {problem && <ProblemList title="The sheets could not be made" problems={problem.problems} />}
      {!pack && !problem && <p className={styles.wait}>Laying the sheets out …</p>}
      {pack && (
        <div className={styles.pages}>
          <nav className={`${styles.list} no-print`} aria-label="Sheets">
            {sheets.map(({ sheet, number, begins }) => (
              <Fragment key={number}>
                {begins !== null && <b>{begins}</b>}
                <a href={`#page-${number}`}>{sheet}</a>
              </Fragment>
            ))}
          </nav>
          <div className={styles.stack}>
            {release !== '' && LOOPBACK.test(address) && (
              <p className={`${styles.told} no-print`}>
                The codes on these pages lead to {new URL(address).host}, which only this machine can open. Open Wattograph by the name that
                the tablets use (WATTOGRAPH_HOSTS), and print from there.
              </p>
            )}
            {pack.changes && <Changes changes={pack.changes} since={since} />}
            {/* pages come as SVG that our own writer made, with every text escaped */}
            {shown.map((page) => (
              <div
                key={page.number}
                id={`page-${page.number}`}
                className={styles.page}
                role="img"
                aria-label={`${page.sheet}, page ${page.number}`}
                dangerouslySetInnerHTML={{ __html: page.svg }}
              />
            ))}
          </div>
        </div>
      )}
      {releasing && (
        <ReleaseDialog
          jobId={jobId}
          next={(releases.at(-1)?.number ?? 0) + 1}
          onClose={dialog.close}
          onDone={(number) => {
            dialog.close();
            void list();
            setRelease(String(number));
            const said = 'It is on the floor now and will not change.';
            void readWorkWords(jobId, number, loomId)
              .catch(() => '')
              .then((words) => notifications.show({ title: `Revision ${number} released`, message: `${said} ${words}`, color: 'sea' }));
          }}
        />
      )}
    </div>
  );
}

/** What to take down where the print of a revision hangs, and what to put in its place. */
function Changes({ changes, since }: { changes: NonNullable<Pack['changes']>; since: string }) {
  if (changes.print.length + changes.destroy.length === 0)
    return <p className={`${styles.told} no-print`}>Every page says what it says in revision {since}: nothing is to be printed.</p>;
  return (
    <p className={`${styles.told} no-print`}>
      {changes.destroy.length > 0 &&
        `Take down and destroy of revision ${since}: ${changes.destroy.map(({ sheet, number }) => `page ${number} (${sheet})`).join(', ')}. `}
      {changes.print.length > 0
        ? `The ${toCount(changes.print.length, 'page')} below ${changes.print.length === 1 ? 'takes' : 'take'} their place; all others hang on.`
        : 'Nothing takes their place.'}
    </p>
  );
}
