'use client';

import { Textarea, TextInput } from '@mantine/core';
import { DateInput } from '@mantine/dates';
import { useForm } from '@mantine/form';
import { modals } from '@mantine/modals';
import { useState } from 'react';
import { createOpenItem } from 'wattograph-core';
import { request, RequestError } from '../../client/request';
import { ProblemList } from '../../ui/findings/ProblemList';
import { DialogEnd } from '../../ui/DialogEnd';

interface Asked {
  jobId: string;
  /** of the step */
  title: string;
  /** what is wrong */
  words: string;
  author: string;
}

/** Let a problem pass until a day: an open item of the job from then on, that is told of when its day is past. onKept: once it is stored. */
export function askConcession(asked: Asked, onKept: (words: string) => void): void {
  const id = modals.open({
    title: 'Let it pass until a day',
    children: (
      <ConcessionForm
        asked={asked}
        onCancel={() => modals.close(id)}
        onKept={(words) => {
          modals.close(id);
          onKept(words);
        }}
      />
    ),
  });
}

const EDIT_TRIES = 4;

/** Put a concession among the open items of the job as it is now; somebody may be editing it. */
async function storeConcession({ jobId, title, author }: Asked, what: string, until: string, owner: string): Promise<void> {
  const itemId = `q-${crypto.randomUUID().slice(0, 13)}`;
  const item = createOpenItem(`${title}: ${what}`.slice(0, 300), { kind: 'concession', due: until, owner, atVisit: false });
  const edit = {
    id: crypto.randomUUID(),
    author,
    label: 'let a problem pass',
    patch: [{ op: 'add', path: `/openItems/${itemId}`, value: item }],
  };
  for (let tried = 1; ; tried += 1) {
    const { version } = await request<{ version: number }>(`/api/jobs/${jobId}`);
    try {
      await request(`/api/jobs/${jobId}/edits`, { ...edit, base: version });
      return;
    } catch (error) {
      if (tried === EDIT_TRIES || !(error instanceof RequestError) || error.status !== 409) throw error;
    }
  }
}

function ConcessionForm({ asked, onCancel, onKept }: { asked: Asked; onCancel: () => void; onKept: (words: string) => void }) {
  const [problem, setProblem] = useState<RequestError | null>(null);
  const [busy, setBusy] = useState(false);
  const form = useForm({
    initialValues: { what: asked.words, until: null as string | null, owner: '' },
    validate: {
      what: (words) => (words.trim() ? null : 'expected what is let pass, and why'),
      until: (day) => (day === null ? 'expected the day it ends' : null),
      owner: (name) => (name.trim() ? null : 'expected who asks the customer'),
    },
  });
  const keep = async ({ what, until, owner }: typeof form.values) => {
    setBusy(true);
    setProblem(null);
    try {
      await storeConcession(asked, what.trim(), until!, owner.trim());
      onKept(`${what.trim()}, until ${until}; ${owner.trim()} asks the customer`.slice(0, 400));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error);
      setBusy(false);
    }
  };
  return (
    <form onSubmit={form.onSubmit((values) => void keep(values))}>
      <Textarea label="What is let pass, and why" data-autofocus autosize minRows={2} maxLength={240} {...form.getInputProps('what')} />
      <DateInput label="Until" mt="sm" valueFormat="D MMM YYYY" clearable {...form.getInputProps('until')} />
      <TextInput label="Who asks the customer" mt="sm" maxLength={80} {...form.getInputProps('owner')} />
      {problem && <ProblemList title="Not stored" problems={problem.problems} />}
      <DialogEnd onClose={onCancel} words="Let it pass" isReady={form.isValid() && !busy} />
    </form>
  );
}
