'use client';

import { Textarea } from '@mantine/core';
import { useForm } from '@mantine/form';
import { modals } from '@mantine/modals';
import { useState } from 'react';
import { refusePhoto } from '../../client/photoLine';
import { BlobPicture } from '../../ui/BlobPicture';
import { DialogEnd } from '../../ui/DialogEnd';
import { CameraInput } from '../../ui/fields/CameraInput';
import styles from './Floor.module.css';

/** What is wrong at a step, with a picture of it where there is something to see (craft D4). */
export function askProblem(onTold: (words: string, photo: Blob | null) => void): void {
  const id = modals.open({
    title: 'What is wrong?',
    children: (
      <ProblemForm
        onCancel={() => modals.close(id)}
        onKeep={(words, photo) => {
          modals.close(id);
          onTold(words, photo);
        }}
      />
    ),
  });
}

function ProblemForm({ onKeep, onCancel }: { onKeep: (words: string, photo: Blob | null) => void; onCancel: () => void }) {
  const [photo, setPhoto] = useState<File | null>(null);
  const refused = photo && refusePhoto(photo);
  const form = useForm({
    initialValues: { reason: '' },
    validate: { reason: (reason) => (reason.trim() ? null : 'expected what is wrong') },
  });
  return (
    <form
      onSubmit={form.onSubmit(({ reason }) => {
        if (!refused) onKeep(reason.trim(), photo);
      })}
    >
      <Textarea
        label="Reason"
        description="goes to the wall of whoever plans"
        data-autofocus
        autosize
        minRows={2}
        maxLength={400}
        {...form.getInputProps('reason')}
      />
      <label className={styles.photo}>
        <span>{photo ? 'Another photo' : 'With a photo'}</span>
        <CameraInput onPicture={setPhoto} onNone={() => setPhoto(null)} />
      </label>
      {photo && !refused && <BlobPicture blob={photo} alt="what was taken" className={styles.preview} />}
      {refused && (
        <p className={styles.failed} role="alert">
          {refused}
        </p>
      )}
      <DialogEnd onClose={onCancel} words="Keep" isReady={form.isValid() && !refused} />
    </form>
  );
}
