'use client';

import { Button, Group, Modal, Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { isHeldFromCutting, isHeldInPlan, toCount, type CarriedWork } from 'wattograph-core';
import { useFindings, useJob } from '../../client/jobContext';
import { request, RequestError, type Progress } from '../../client/request';
import type { ReleaseLine } from '../../server/releases';
import { ProblemList } from '../../ui/findings/ProblemList';

/** What becomes of the work done in earlier revisions; nothing where none was done. */
export async function readWorkWords(jobId: string, number: number, loomId: string): Promise<string> {
  if (number === 1) return '';
  const { carried, reopened, undo } = await request<CarriedWork>(
    `/api/jobs/${jobId}/releases/${number}/carried?loom=${encodeURIComponent(loomId)}`,
  );
  if (carried.length + reopened.length + undo.length === 0) return '';
  return `Of the work done on this loom ${toCount(carried.length, 'tick counts on', 'ticks count on')}, ${toCount(reopened.length, 'is', 'are')} open again, ${toCount(undo.length, 'asks', 'ask')} to be undone.`;
}

/** Freezes the job as it stands as a numbered revision. */
export function ReleaseDialog({
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
  const result = useJob((state) => state.result);
  const form = useForm({ initialValues: { note: '' } });
  const [inPart, setInPart] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [problem, setProblem] = useState<RequestError | null>(null);
  const stops = findings.filter(({ grade, key }) => grade === 'stop' && !Object.hasOwn(accepted, key));
  const isPart = stops.length > 0 && stops.every(isHeldInPlan);
  const open = isPart && inPart ? [] : stops;
  const wires = result?.looms.flatMap((loom) => loom.wires) ?? [];
  const held = wires.filter(isHeldFromCutting).length;
  const release = async ({ note }: { note: string }) => {
    setBusy(true);
    try {
      const path = `/api/jobs/${jobId}/releases`;
      onDone((await request<ReleaseLine>(path, { id, base: version, note, inPart: isPart && inPart }, { onProgress: setProgress })).number);
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
          {isPart && (
            <p>
              {held} of {toCount(wires.length, 'wire')} {held === 1 ? 'is' : 'are'} held by that, and {held === 1 ? 'stays' : 'stay'} held
              on every card. The rest can be released now; what is held follows with a later revision, and work done by then counts on.
            </p>
          )}
          <Group justify="flex-end">
            <Button variant="default" onClick={onClose}>
              Close
            </Button>
            {isPart && <Button onClick={() => setInPart(true)}>Release the rest …</Button>}
          </Group>
        </>
      ) : (
        <form onSubmit={form.onSubmit((values) => void release(values))}>
          <p style={{ marginTop: 0 }}>
            The job as it stands becomes revision {next}, for good. The floor works from it, and work done before counts on where it stays
            the same; later edits make the next one.
          </p>
          {held > 0 && (
            <p role="status">
              {held} of {toCount(wires.length, 'wire')} {held === 1 ? 'is' : 'are'} held from cutting and {held === 1 ? 'stays' : 'stay'} so
              in it.
            </p>
          )}
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
