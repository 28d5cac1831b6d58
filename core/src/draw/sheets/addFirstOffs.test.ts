import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { createBuild, listCrimpSeries } from '../../make';
import { plan } from '../../plan';
import { toRunWords } from '../../units';
import type { SheetPage } from '../drawing';
import { createSheets } from './createSheets';

const META = { paper: 'A4', job: 'job', loom: 'loom', revision: 'draft', date: '2026-11-29' } as const;
const texts = ({ marks }: Pick<SheetPage, 'marks'>) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : []));

describe('the chart of first-offs (craft D3)', () => {
  const chart = (part: Partial<(typeof CATALOGUE.standards)[string]>) => {
    const catalogue = { ...CATALOGUE, standards: { ...CATALOGUE.standards, larkhollow: { ...CATALOGUE.standards.larkhollow!, ...part } } };
    const job = createSkerry();
    const whole = plan(job, catalogue);
    const planned = whole.looms.find(({ loomId }) => loomId === 'inlet')!;
    const build = createBuild(job, planned, catalogue);
    return createSheets({ job, whole, plan: planned, build, findings: [], catalogue }, META).filter(({ sheet }) => sheet === 'First-offs');
  };

  test('every kind of crimp of the loom once, with its least pull and where to look at the die, and room for each sample', () => {
    const job = createSkerry();
    const planned = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
    const series = listCrimpSeries(planned, createBuild(job, planned, CATALOGUE).steps, CATALOGUE.contacts);
    const pages = chart({});
    const words = pages.flatMap(texts).map(({ text }) => text);
    expect(words.filter((text) => text === '____')).toHaveLength(4 * series.length);
    const toLooks = ({ leastN }: (typeof series)[number]) =>
      toRunWords(
        leastN.map((least) => `${Math.ceil(least! * 1.15 - 1e-9)}`),
        ' / ',
      );
    // those of unlike wires go over lines, and leave figures of others there
    const whole = series.map(toLooks).filter((looks) => !looks.includes('/'));
    const count = (looks: string) => words.filter((text) => text === looks).length;
    for (const looks of new Set(whole)) expect(count(looks)).toBeGreaterThanOrEqual(whole.filter((other) => other === looks).length);
    expect(whole).toContain('3 × 46');
    expect(pages.every(({ post }) => post === 'wall')).toBe(true);
  });

  test('as many samples as the shop asks for; none where it asks for none', () => {
    const count = (pages: readonly SheetPage[], of: string) => pages.flatMap(texts).filter(({ text }) => text === of).length;
    expect(count(chart({}), 'last')).toBe(1);
    expect(count(chart({ sampleFirst: 5 }), '____') / count(chart({}), '____')).toBeCloseTo(6 / 4, 6);
    expect(chart({ sampleFirst: 0 })).toEqual([]);
  });
});
