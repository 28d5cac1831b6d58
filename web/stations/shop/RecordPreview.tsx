import {
  listWindow,
  measureCopperDiameter,
  measureGrip,
  type Conductor,
  type CoveringItem,
  type Shop,
  type ShopTable,
} from 'wattograph-core';
import styles from './Shop.module.css';

const WIDTH = 520;
const LEFT = 84;
const ROW = 30;
/** width of a digit of a size */
const DIGIT = 6.6;

/** A place on a scale of equal ratios. */
const toScale = (least: number, most: number) => (value: number) =>
  LEFT + ((Math.log(value) - Math.log(least)) / (Math.log(most) - Math.log(least))) * (WIDTH - LEFT - 24);

const figure = (value: number) => String(Number(value.toPrecision(3)));

/** What a record is or takes, drawn from its figures as they are typed. */
export function RecordPreview({ shop, table, value }: { shop: Shop; table: ShopTable; value: unknown }) {
  if (table === 'wires') return <WireSection wire={value as Conductor} />;
  if (table === 'coverings') return <Grip shop={shop} item={value as CoveringItem} />;
  return <Window shop={shop} table={table} value={value} />;
}

function Window({ shop, table, value }: { shop: Shop; table: ShopTable; value: unknown }) {
  const window = listWindow(shop, table, value);
  const all = window?.rows.flatMap(({ wires }) => wires.map(({ at }) => at)) ?? [];
  if (!window || all.length === 0 || !(window.least > 0 && window.most >= window.least)) return null;
  const { least, most, rows, unit, what } = window;
  const x = toScale(Math.min(least, ...all) / 1.15, Math.max(most, ...all) * 1.15);
  const height = rows.length * ROW + 24;
  const words = `takes ${figure(least)} to ${figure(most)} ${unit} of ${what}`;
  return (
    <svg className={styles.preview} viewBox={`0 0 ${WIDTH} ${height}`} role="img" aria-label={words}>
      <rect
        x={x(least)}
        width={Math.max(2, x(most) - x(least))}
        y={0}
        height={height - 22}
        fill="var(--brass-wash)"
        stroke="var(--brass)"
      />
      {rows.map((row, at) => {
        const named = listNamed(row.wires, x);
        return (
          <g key={row.words} transform={`translate(0 ${at * ROW + ROW / 2})`}>
            <text x={0} y={4} className={styles.scaleWords}>
              {row.words}
            </text>
            <line x1={LEFT} x2={WIDTH} stroke="var(--hair)" />
            {row.wires.map(({ size, at: place, fits }) => (
              <g key={size}>
                <circle cx={x(place)} r={4} fill={fits ? 'var(--ink)' : 'var(--paper)'} stroke="var(--ink)" strokeWidth={1.4} />
                {named.has(size) && (
                  <text x={x(place)} y={-7} textAnchor="middle" className={styles.scaleSize}>
                    {size}
                  </text>
                )}
              </g>
            ))}
          </g>
        );
      })}
      <text x={x(least)} y={height - 6} textAnchor="middle" className={styles.scaleSize}>
        {figure(least)}
      </text>
      <text x={x(most)} y={height - 6} textAnchor="middle" className={styles.scaleSize}>
        {figure(most)} {unit}
      </text>
    </svg>
  );
}

/** Sizes that have room for their name, those that fit first, then the thinnest and the thickest. */
function listNamed(wires: readonly { size: string; at: number; fits: boolean }[], x: (at: number) => number): ReadonlySet<string> {
  const ends = [wires[0], wires.at(-1)].flatMap((one) => one ?? []);
  const taken: [number, number][] = [];
  const named = new Set<string>();
  for (const { size, at } of [...wires.filter(({ fits }) => fits), ...ends]) {
    const half = (size.length * DIGIT + DIGIT) / 2;
    if (named.has(size) || taken.some(([from, to]) => x(at) - half < to && x(at) + half > from)) continue;
    named.add(size);
    taken.push([x(at) - half, x(at) + half]);
  }
  return named;
}

function WireSection({ wire }: { wire: Conductor }) {
  const copperMm = measureCopperDiameter(wire);
  const reach = Math.max(wire.odMm, copperMm) * 0.58;
  const words = `${figure(wire.odMm)} mm over the insulation, ${figure(copperMm)} mm over the strands`;
  return (
    <figure className={styles.wire}>
      <svg viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`} role="img" aria-label={words}>
        <circle r={wire.odMm / 2} fill="var(--brass-wash)" stroke="var(--ink)" strokeWidth={reach * 0.02} />
        <circle r={copperMm / 2} fill="var(--brass)" stroke="var(--ink)" strokeWidth={reach * 0.02} />
      </svg>
      <figcaption>
        {words}
        {copperMm >= wire.odMm && <b className={styles.wrong}>The strands are thicker than the insulation over them.</b>}
      </figcaption>
    </figure>
  );
}

/** Bundles that a covering grips, as the first house style has its braids drawn. */
function Grip({ shop, item }: { shop: Shop; item: CoveringItem }) {
  const standard = Object.values(shop.standards)[0]!;
  const { leastMm, mostMm } = measureGrip(item, standard);
  if (!(leastMm > 0 && mostMm > leastMm)) return <p className={styles.wrong}>No bundle is thick enough for it and passes it.</p>;
  const others = shop.coverings.filter(({ kind }) => kind === item.kind).map((one) => measureGrip(one, standard));
  const x = toScale(
    Math.min(leastMm, ...others.map((one) => one.leastMm)) / 1.1,
    Math.max(mostMm, ...others.map((one) => one.mostMm)) * 1.1,
  );
  const words = `grips bundles of ${leastMm.toFixed(1)} to ${mostMm.toFixed(1)} mm`;
  return (
    <svg className={styles.preview} viewBox={`0 0 ${WIDTH} 64`} role="img" aria-label={words}>
      {others.map((one, at) => (
        <line
          key={at}
          x1={x(one.leastMm)}
          x2={x(one.mostMm)}
          y1={10 + (at % 3) * 6}
          y2={10 + (at % 3) * 6}
          stroke="var(--hair)"
          strokeWidth={3}
        />
      ))}
      <rect
        x={x(leastMm)}
        width={x(mostMm) - x(leastMm)}
        y={28}
        height={14}
        fill="var(--brass-wash)"
        stroke="var(--brass)"
        strokeWidth={1.5}
      />
      <text x={0} y={39} className={styles.scaleWords}>
        bundles
      </text>
      <text x={x(leastMm)} y={60} textAnchor="middle" className={styles.scaleSize}>
        {leastMm.toFixed(1)}
      </text>
      <text x={x(mostMm)} y={60} textAnchor="middle" className={styles.scaleSize}>
        {mostMm.toFixed(1)} mm
      </text>
    </svg>
  );
}
