'use client';

import { Button, Group, Menu, Modal, SegmentedControl, Select, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDisclosure } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import { toUrl } from '../../client/base';
import { toCount, type CarriedWork } from 'wattograph-core';
import { useFindings, useJob } from '../../client/jobContext';
import { hearNews } from '../../client/live';
import { useMay } from '../../client/person';
import { request, requestFile, RequestError, type Progress } from '../../client/request';
import type { ReleaseLine } from '../../server/releases';
import { useLoomId } from '../../ui/JobShell';
import { ProblemList } from '../../ui/findings/ProblemList';
import { saveBlob } from '../../client/saveFile';
import styles from './Sheets.module.css';

interface Pack {
  revision: string;
  /** what the parts of this loom cost, in words */
  cost: { short: string; whole: string };
  /** what differs from a revision whose print hangs; null: nothing is compared */
  changes: { print: number[]; destroy: { sheet: string; number: number }[] } | null;
  pages: { sheet: string; number: number; widthMm: number; heightMm: number; svg: string }[];
}

/** The build pack as it prints; release makes a numbered revision. */
export function SheetsStation() {
  const loomId = useLoomId();
  const jobId = useJob(({ id }) => id);
  const version = useJob((state) => state.version);
  const stored = useJob((state) => state.saving);
  const [paper, setPaper] = useState('A4');
  const [release, setRelease] = useState('');
  const [since, setSince] = useState('');
  const [releases, setReleases] = useState<ReleaseLine[]>([]);
  const [pack, setPack] = useState<Pack | null>(null);
  const [problem, setProblem] = useState<RequestError | null>(null);
  /** the file that is being made */
  const [saving, setSaving] = useState<string | null>(null);
  const mayPlan = useMay('plan');
  const [releasing, dialog] = useDisclosure(false);
  const query = `loom=${encodeURIComponent(loomId)}&paper=${paper}&release=${release}`;
  const pageQuery = `${query}${since === '' ? '' : `&since=${since}`}`;

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

  const shown = pack ? pack.pages.filter(({ number }) => pack.changes === null || pack.changes.print.includes(number)) : [];
  const sheets = pack ? shown.flatMap(({ sheet, number }, index) => (shown[index - 1]?.sheet === sheet ? [] : [{ sheet, number }])) : [];
  return (
    <div>
      <style>{`@page { size: ${paper === 'A4' ? 'A4' : 'letter'}; margin: 0; }`}</style>
      <div className={`${styles.bar} no-print`}>
        <Select
          aria-label="Revision"
          w={200}
          value={release}
          allowDeselect={false}
          onChange={(value) => setRelease(value ?? '')}
          data={[
            { value: '', label: `draft, version ${version}` },
            ...[...releases].reverse().map(({ number, author }) => ({ value: String(number), label: `revision ${number}, ${author}` })),
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
        <SegmentedControl aria-label="Paper" data={['A4', 'Letter']} value={paper} onChange={setPaper} />
        <span className="faint" title={pack?.cost.whole}>
          {pack
            ? [
                pack.changes ? `${shown.length} of ${toCount(pack.pages.length, 'page')}` : toCount(pack.pages.length, 'page'),
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
            onClick={() => void save('pdf', `/api/jobs/${jobId}/sheets?format=pdf&${pageQuery}`)}
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
            {sheets.map(({ sheet, number }) => (
              <a key={number} href={`#page-${number}`}>
                {sheet}
              </a>
            ))}
          </nav>
          <div className={styles.stack}>
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
    return <p className={`${styles.wait} no-print`}>Every page says what it says in revision {since}: nothing is to be printed.</p>;
  return (
    <p className={`${styles.wait} no-print`}>
      {changes.destroy.length > 0 &&
        `Take down and destroy of revision ${since}: ${changes.destroy.map(({ sheet, number }) => `page ${number} (${sheet})`).join(', ')}. `}
      {changes.print.length > 0
        ? `The ${toCount(changes.print.length, 'page')} below ${changes.print.length === 1 ? 'takes' : 'take'} their place; all others hang on.`
        : 'Nothing takes their place.'}
    </p>
  );
}

/** What becomes of the work done in earlier revisions; nothing where none was done. */
async function readWorkWords(jobId: string, number: number, loomId: string): Promise<string> {
  if (number === 1) return '';
  const { carried, reopened, undo } = await request<CarriedWork>(
    `/api/jobs/${jobId}/releases/${number}/carried?loom=${encodeURIComponent(loomId)}`,
  );
  if (carried.length + reopened.length + undo.length === 0) return '';
  return `Of the work done on this loom ${toCount(carried.length, 'tick counts on', 'ticks count on')}, ${toCount(reopened.length, 'is', 'are')} open again, ${toCount(undo.length, 'asks', 'ask')} to be undone.`;
}

function ReleaseDialog({
  jobId,
  next,
  onClose,
  onDone,
}: {
  jobId: string;
  next: number;
  onClose: () => void;
  onDone: (number: number) => void;
}) {
  const findings = useFindings();
  const accepted = useJob(({ document }) => document.accepted);
  const version = useJob((state) => state.version);
  const waiting = useJob((state) => state.waiting);
  const form = useForm({ initialValues: { note: '' } });
  const [id] = useState(() => crypto.randomUUID());
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [problem, setProblem] = useState<RequestError | null>(null);
  const open = findings.filter(({ grade, key }) => grade === 'stop' && !Object.hasOwn(accepted, key));
  const release = async ({ note }: { note: string }) => {
    setBusy(true);
    try {
      const path = `/api/jobs/${jobId}/releases`;
      onDone((await request<ReleaseLine>(path, { id, base: version, note }, { onProgress: setProgress })).number);
    } catch (error) {
      if (error instanceof RequestError) setProblem(error);
      else throw error;
    } finally {
      setBusy(false);
    }
  };
  return (
    <Modal opened onClose={onClose} title={`Release revision ${next}`} size="lg">
      {open.length > 0 ? (
        <>
          <ProblemList
            title={`${open.length} stop ${open.length === 1 ? 'finding stands' : 'findings stand'} in the way`}
            problems={open.map(({ code, sentence }) => ({ path: code, message: sentence }))}
          />
          <p>Mend each, or accept it as it is with a reason that prints in the pack: Bundle, tab Findings.</p>
          <Group justify="flex-end">
            <Button variant="default" onClick={onClose}>
              Close
            </Button>
          </Group>
        </>
      ) : (
        <form onSubmit={form.onSubmit((values) => void release(values))}>
          <p style={{ marginTop: 0 }}>
            The job as it stands becomes revision {next}, for good. The floor works from it, and work done before counts on where it stays
            the same; later edits make the next one.
          </p>
          <Textarea
            label="Note"
            description="what is new, for whoever builds it"
            data-autofocus
            maxLength={2000}
            {...form.getInputProps('note')}
          />
          {busy && progress && (
            <p className="faint" role="status">
              {progress.of > 0 ? `Planning and drawing it: ${progress.done} of ${progress.of} looms` : 'In line for a worker'} …
            </p>
          )}
          {waiting > 0 && (
            <p role="status">
              {toCount(waiting, 'edit')} of yours {waiting === 1 ? 'is' : 'are'} still being saved: a revision holds what is saved.
            </p>
          )}
          {problem && <ProblemList title="Not released" problems={problem.problems} />}
          <Group justify="flex-end" mt="md">
            <Button variant="default" onClick={onClose}>
              Leave it
            </Button>
            <Button type="submit" loading={busy} disabled={waiting > 0}>
              Release
            </Button>
          </Group>
        </form>
      )}
    </Modal>
  );
}
