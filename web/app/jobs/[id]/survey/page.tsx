import { expectPerson, orNotFound } from '../../../../server/accounts/page';
import { readJob } from '../../../../server/documents';
import { toJobId } from '../../../../server/requests';
import { readShopForPage } from '../../../../server/shop';
import { SurveyStation } from '../../../../stations/survey/SurveyStation';

export const dynamic = 'force-dynamic';

export default async function SurveyPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ loom?: string }>;
}) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const loaded = await orNotFound(readJob(toJobId(id), person.name));
  return (
    <SurveyStation
      loaded={{ ...loaded, person, ...(await readShopForPage(loaded.document)) }}
      wantedLoomId={(await searchParams).loom ?? null}
    />
  );
}
