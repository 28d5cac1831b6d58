import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { preload } from 'react-dom';
import { toUrl } from '../../../../client/base';
import { toPlanPath } from '../../../../client/planPath';
import { expectPerson } from '../../../../server/accounts/page';
import type { Person } from '../../../../server/accounts/rights';
import { readJob } from '../../../../server/documents';
import { Refusal } from '../../../../server/refusal';
import { toJobId } from '../../../../server/requests';
import { readShopForPage } from '../../../../server/shop';
import { JobShell } from '../../../../ui/JobShell';

export const dynamic = 'force-dynamic';

export default async function DeskLayout({ children, params }: { children: ReactNode; params: Promise<{ id: string }> }) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const initial = await open(id, person);
  if (!initial) notFound();
  preload(toUrl(toPlanPath(id, initial.version)), { as: 'fetch', crossOrigin: 'anonymous' });
  return <JobShell initial={initial}>{children}</JobShell>;
}

async function open(id: string, person: Person) {
  try {
    const job = await readJob(toJobId(id), person.name);
    return { ...job, person, ...(await readShopForPage(job.document)) };
  } catch (error) {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  }
}
