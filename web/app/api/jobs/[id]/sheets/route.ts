import { join } from 'node:path';
import { toSvg } from 'wattograph-core';
import { toPdf } from 'wattograph-core/pdf';
import { readPages, readSource, toFileName } from '../../../../../server/packs';
import { toJobId } from '../../../../../server/requests';
import { respond } from '../../../../../server/respond';

/** The build pack: pages as SVG in JSON, or with ?format=pdf one PDF. ?loom= ?paper= ?release= choose what. */
export const GET = respond<{ id: string }>(async (request, { id }) => {
  const query = new URL(request.url).searchParams;
  const source = await readSource(toJobId(id), query.get('release'));
  const pages = await readPages(source, query.get('loom'), query.get('paper'));
  if (query.get('format') !== 'pdf')
    return Response.json({
      revision: source.revision,
      pages: pages.map((page) => ({ sheet: page.sheet, widthMm: page.widthMm, heightMm: page.heightMm, svg: toSvg(page) })),
    });
  const pdf = await toPdf(
    pages,
    `${source.job.name}, ${source.revision}`,
    source.at,
    process.env.WATTOGRAPH_FONTS ?? join(process.cwd(), 'core/assets/fonts'),
  );
  const name = toFileName(source.job.name, query.get('loom') ?? '', source.revision);
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${name}.pdf"` },
  });
});
