'use client';

import { Button, Group, Modal } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useEffect, useState } from 'react';
import type { Problem, ShopDifference } from 'wattograph-core';
import { useJob, useJobStore } from '../../client/jobContext';
import { hearNews } from '../../client/live';
import { openAnew } from '../../client/openAnew';
import { request, RequestError } from '../../client/request';
import type { JobEffect } from '../../server/shop';
import styles from '../JobShell.module.css';
import { ProblemList } from '../findings/ProblemList';
import { Effect, ShopDifferences } from './ShopEffect';
import effectStyles from './ShopEffect.module.css';

interface BringUp {
  version: number;
  from: number;
  differences: ShopDifference[];
  effect: JobEffect;
}

/** The version of the shop that this job is planned with; where the shop has a newer one, what that would change. */
export function ShopPin({ jobId }: { jobId: string }) {
  const { shopVersion } = useJobStore();
  const present = usePresentVersion(shopVersion);
  const [opened, dialog] = useDisclosure(false);
  useOtherShop(shopVersion);
  // a job that was imported may be planned with records that it carried, numbered beside the versions of the shop
  const isOlder = present !== shopVersion;
  return (
    <>
      <button
        type="button"
        className={`${styles.pin} ${isOlder ? styles.older : ''}`}
        onClick={dialog.open}
        disabled={!isOlder}
        title={
          isOlder
            ? 'the shop has another version now: see what it would change in this job'
            : 'this job is planned with the newest version of the shop'
        }
      >
        shop {shopVersion}
        {isOlder ? ` → ${present}` : ''}
      </button>
      {opened && <BringUpDialog jobId={jobId} onClose={dialog.close} />}
    </>
  );
}

/** The newest version of the shop. */
function usePresentVersion(known: number): number {
  const [present, setPresent] = useState(known);
  useEffect(() => {
    const ask = async () => {
      const answer = await request<{ version: number }>('/api/shop/version').catch(() => null);
      if (answer) setPresent(answer.version);
    };
    void ask();
    return hearNews((news) => {
      if (news.topic === 'shop') setPresent(news.version);
      else if (news.topic === 'again') void ask();
    });
  }, [known]);
  return present;
}

/** The page holds one shop: when the job is brought up, here or elsewhere, or that is undone, it opens anew with the other. */
function useOtherShop(held: number): void {
  const named = useJob(({ document }) => document.shopVersion);
  const saving = useJob((state) => state.saving);
  useEffect(() => {
    if (named !== null && named !== held && saving === 'saved') openAnew();
  }, [named, held, saving]);
}

function BringUpDialog({ jobId, onClose }: { jobId: string; onClose: () => void }) {
  const store = useJobStore();
  const [made, setMade] = useState<BringUp | null>(null);
  const [problems, setProblems] = useState<Problem[]>([]);
  useEffect(() => {
    const left = new AbortController();
    request<BringUp>(`/api/jobs/${jobId}/shop`, undefined, { signal: left.signal })
      .then(setMade)
      .catch((error: unknown) => {
        if (!left.signal.aborted) setProblems(error instanceof RequestError ? error.problems : [{ path: '', message: String(error) }]);
      });
    return () => left.abort();
  }, [jobId]);
  const bringUp = () => {
    store.push(`bring up to shop version ${made!.version}`, [{ op: 'replace', path: '/shopVersion', value: made!.version }]);
    onClose();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      title={made ? `From version ${made.from} of the shop to ${made.version}` : 'Another version of the shop'}
      size="xl"
    >
      {problems.length > 0 && <ProblemList title="Not compared; nothing is changed" problems={problems} />}
      {!made && problems.length === 0 && <p>Planning this job with both …</p>}
      {made && (
        <>
          <h3 className={effectStyles.part}>In this job</h3>
          <div>
            <Effect effect={made.effect} />
          </div>
          {made.effect.problems.length > 0 && (
            <ProblemList title="It uses what the shop does not have any more" problems={made.effect.problems} />
          )}
          <h3 className={effectStyles.part}>In the shop</h3>
          <ShopDifferences differences={made.differences} />
          <p className="faint">
            An edit like any other: undo goes back to version {made.from}. Revisions that are released stay what they are.
          </p>
        </>
      )}
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          Leave it
        </Button>
        <Button disabled={!made || made.effect.problems.length > 0} onClick={bringUp}>
          Bring it up
        </Button>
      </Group>
    </Modal>
  );
}
