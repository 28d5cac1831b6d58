'use client';

import { Button, Group, Textarea } from '@mantine/core';
import { modals } from '@mantine/modals';
import { useState } from 'react';

/** Ask why something is chosen by hand; nothing is chosen without a reason. */
export function askReason(title: string, onReason: (reason: string) => void): void {
  const id = modals.open({
    title,
    children: (
      <ReasonForm
        onCancel={() => modals.close(id)}
        onKeep={(reason) => {
          modals.close(id);
          onReason(reason);
        }}
      />
    ),
  });
}

function ReasonForm({ onKeep, onCancel }: { onKeep: (reason: string) => void; onCancel: () => void }) {
  const [reason, setReason] = useState('');
  const isGood = reason.trim() !== '';
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (isGood) onKeep(reason.trim());
      }}
    >
      <Textarea
        label="Reason"
        description="prints in the pack"
        data-autofocus
        autosize
        minRows={2}
        maxLength={400}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onCancel}>
          Leave it
        </Button>
        <Button type="submit" disabled={!isGood}>
          Keep
        </Button>
      </Group>
    </form>
  );
}
