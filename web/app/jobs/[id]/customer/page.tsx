import { notFound } from 'next/navigation';
import { expectPerson } from '../../../../server/accounts/page';
import { readCustomerView } from '../../../../server/jobs/customer';
import { Refusal } from '../../../../server/refusal';
import { toJobId } from '../../../../server/requests';
import { CustomerStation } from '../../../../stations/customer/CustomerStation';

export const dynamic = 'force-dynamic';

export default async function CustomerPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const person = await expectPerson('answer', id);
  const view = await readView(id, person);
  if (!view) notFound();
  return <CustomerStation view={view} person={person} />;
}

async function readView(id: string, person: Parameters<typeof readCustomerView>[1]) {
  try {
    return await readCustomerView(toJobId(id), person);
  } catch (error) {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  }
}
