'use client';

import { Button, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { toCount } from 'wattograph-core';
import { setPerson } from '../../client/person';
import { request, RequestError } from '../../client/request';
import { mayDo, type Person } from '../../server/accounts/rights';
import type { Asked, CustomerView, LoomStanding } from '../../server/jobs/customer';
import { Who } from '../../ui/accounts/Who';
import styles from './Customer.module.css';

/** a page that is left open is asked for anew so often, while it is looked at */
const REFRESH_MS = 30_000;

/** A customer hears no news of the shop: the page is asked for again now and then, and when somebody comes back to it. What is being written stays. */
function useRefresh(): () => void {
  const router = useRouter();
  useEffect(() => {
    const refresh = () => {
      if (!document.hidden) router.refresh();
    };
    const timer = setInterval(refresh, REFRESH_MS);
    document.addEventListener('visibilitychange', refresh);
    window.addEventListener('online', refresh);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', refresh);
      window.removeEventListener('online', refresh);
    };
  }, [router]);
  return () => router.refresh();
}

/** What the customer of a job sees: when it is promised, how far it is, and what the shop needs to know. */
export function CustomerStation({ view: opened, person }: { view: CustomerView; person: Person }) {
  useState(() => setPerson(person));
  // what an answer brought back stands until the page itself is newer
  const [brought, setBrought] = useState<{ over: CustomerView; view: CustomerView } | null>(null);
  const view = brought?.over === opened ? brought.view : opened;
  const refresh = useRefresh();
  const setView = (next: CustomerView) => {
    setBrought({ over: opened, view: next });
    // one that was asked for before the answer was stored would show the question once more
    refresh();
  };
  const open = view.asked.filter(({ answer }) => answer === null);
  const answered = view.asked.filter(({ answer }) => answer !== null);
  const isShop = mayDo(person.role, 'look');
  return (
    <main className={styles.page}>
      <header className={styles.head}>
        <h1>{view.name}</h1>
        {isShop && (
          <span className="faint">
            as {view.customer || 'the customer'} sees it · <Link href={`/jobs/${view.id}/brief`}>back to the brief</Link>
          </span>
        )}
        <span>
          <Who />
        </span>
      </header>
      <dl className={styles.facts}>
        {view.vehicle && (
          <>
            <dt>Vehicle</dt>
            <dd>{view.vehicle}</dd>
          </>
        )}
        <dt>Promised</dt>
        <dd>{view.promisedOn ?? 'no day yet'}</dd>
        <dt>Agreed</dt>
        <dd>
          {view.agreed
            ? `${toCount(view.agreed.devices.length, 'device')} on ${view.agreed.on}: ${view.agreed.devices.join(', ')}`
            : 'not yet'}
        </dd>
      </dl>
      <section className={styles.part} aria-label="What we need to know from you">
        <h2>What we need to know from you</h2>
        {open.length === 0 && <p className="faint">Nothing at the moment.</p>}
        <ul className={styles.asked}>
          {open.map((asked) => (
            <li key={asked.id} className={`${styles.item} ${asked.isLate ? styles.late : ''}`}>
              <Question jobId={view.id} asked={asked} onView={setView} />
            </li>
          ))}
        </ul>
      </section>
      <section className={styles.part} aria-label="How far it is">
        <h2>How far it is</h2>
        <ul className={styles.looms}>
          {view.looms.map((loom) => (
            <Standing key={loom.id} loom={loom} />
          ))}
        </ul>
      </section>
      {answered.length > 0 && (
        <section className={styles.part} aria-label="What was answered">
          <h2>What was answered</h2>
          <ul className={styles.asked}>
            {answered.map(({ id, question, answer, answeredBy }) => (
              <li key={id} className={`${styles.item} ${styles.done}`}>
                <p className={styles.question}>{question}</p>
                <span>
                  {answer} <span className="faint">{answeredBy}</span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

function Question({ jobId, asked, onView }: { jobId: string; asked: Asked; onView: (view: CustomerView) => void }) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // one id an answer, however often it is sent
  const [id] = useState(() => crypto.randomUUID());
  const form = useForm({
    initialValues: { answer: '' },
    validate: { answer: (words) => (words.trim() ? null : 'expected an answer') },
  });
  const send = form.onSubmit(async ({ answer }) => {
    setBusy(true);
    setProblem(null);
    try {
      onView(await request<CustomerView>(`/api/jobs/${jobId}/customer`, { id, item: asked.id, answer: answer.trim() }));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.isPassing ? 'It could not be sent. What you wrote is still here: send it again in a moment.' : error.message);
    } finally {
      setBusy(false);
    }
  });
  return (
    <>
      <p className={styles.question}>{asked.question}</p>
      {(asked.due ?? asked.isHolding) && (
        <span className="faint">
          {[asked.due && `${asked.isLate ? 'was needed by' : 'needed by'} ${asked.due}`, asked.isHolding && 'work waits for it']
            .filter(Boolean)
            .join('; ')}
        </span>
      )}
      <form onSubmit={send}>
        <Textarea
          aria-label={`Answer to: ${asked.question}`}
          autosize
          minRows={1}
          maxRows={6}
          maxLength={400}
          {...form.getInputProps('answer')}
        />
        {problem && (
          <p className={styles.wrong} role="alert">
            {problem}
          </p>
        )}
        <Button type="submit" size="compact-md" loading={busy} disabled={!form.values.answer.trim()}>
          Answer
        </Button>
      </form>
    </>
  );
}

function Standing({ loom: { name, ends, runs, measured, work } }: { loom: LoomStanding }) {
  const share = work && work.of > 0 ? work.done / work.of : 0;
  return (
    <li className={styles.loom}>
      <span>
        <b>{name}</b> <span className="faint">{toCount(ends, 'end')}</span>
      </span>
      <span>{measured === runs ? 'all measured' : `${measured} of ${toCount(runs, 'length')} measured`}</span>
      {work ? (
        <span>
          <span className={styles.bar} style={{ display: 'block' }} role="img" aria-label={`${Math.floor(share * 100)} % built`}>
            <span style={{ width: `${share * 100}%` }} />
          </span>
          <span className="faint">
            {work.done === work.of ? 'built' : work.done === 0 ? 'ready to be built' : `${Math.floor(share * 100)} % built`}, revision{' '}
            {work.revision}
          </span>
        </span>
      ) : (
        <span className="faint">being planned</span>
      )}
    </li>
  );
}
