import { Button } from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import { useParams, useRouter } from 'next/navigation';
import type { Job } from 'wattograph-core';
import { ImportWireList } from './ImportWireList';

/** The way most shops begin: a wire list from their own spreadsheet. It ends at the loom that came of it. */
export function WireListButton({ job }: { job: Job }) {
  const router = useRouter();
  const { id } = useParams<{ id: string }>();
  const [opened, dialog] = useDisclosure(false);
  return (
    <>
      <Button variant="default" onClick={dialog.open}>
        A loom from a wire list …
      </Button>
      {opened && (
        <ImportWireList
          job={job}
          onClose={dialog.close}
          onDone={(loomId) => {
            dialog.close();
            router.push(`/jobs/${id}/bundle?loom=${loomId}`);
          }}
        />
      )}
    </>
  );
}
