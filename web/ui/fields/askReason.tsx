'use client';

import { Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { modals } from '@mantine/modals';
import { DialogEnd } from '../DialogEnd';

/** Ask why something is chosen by hand; nothing is chosen without a reason. where: who reads it. */
export function askReason(title: string, onReason: (reason: string) => void, where = 'prints in the pack'): void {
  const id = modals.open({
    title,
    children: (
      <ReasonForm
        where={where}
        onCancel={() => modals.close(id)}
        onKeep={(reason) => {
          modals.close(id);
          onReason(reason);
        }}
      />
    ),
  });
}

function ReasonForm({ where, onKeep, onCancel }: { where: string; onKeep: (reason: string) => void; onCancel: () => void }) {
  const form = useForm({
    initialValues: { reason: '' },
    validate: { reason: (reason) => (reason.trim() ? null : 'expected a reason') },
  });
  return (
    <form onSubmit={form.onSubmit(({ reason }) => onKeep(reason.trim()))}>
      <Textarea label="Reason" description={where} data-autofocus autosize minRows={2} maxLength={400} {...form.getInputProps('reason')} />
      <DialogEnd onClose={onCancel} words="Keep" isReady={form.isValid()} />
    </form>
  );
}
