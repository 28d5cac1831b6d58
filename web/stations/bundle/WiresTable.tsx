'use client';

import { Table } from '@mantine/core';
import { useMemo, useState } from 'react';
import { isHeldFromCutting, toColourWords, toHoldWords, toSizeWords, type LengthAllowance, type PlannedWire } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useCursorStore, useLit, useSection } from '../../ui/cursor';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { NextAction } from '../../ui/NextAction';
import { Swatch } from '../../ui/Swatch';
import { Why } from '../../ui/Why';
import styles from './Bundle.module.css';
import { useChanges } from './Changes';

const TINT: Record<LengthAllowance['kind'], string> = {
  segment: '#bcd9d1',
  breakout: '#d9c27a',
  entry: '#e0a94e',
  'service-loop': '#9db4d0',
  're-termination': '#7f9cc0',
  clocking: '#b39ac6',
  potting: '#a3ad7d',
  strip: '#c9a98c',
  splice: '#55666c',
  rounding: '#dfe3dc',
};

/** The wires under the cursor (or all), with the cut length of each and what it is made of. */
export function WiresTable({ planned }: { planned: PlannedLoom }) {
  const [all, setAll] = useState(false);
  const { plan } = planned;
  const section = useSection(plan)?.section;
  const wires = useMemo(() => {
    if (all) return plan.wires;
    const ids = new Set(section?.elements.flat());
    return plan.wires.filter(({ id }) => ids.has(id));
  }, [all, section, plan]);
  const changes = useChanges(planned);
  const lit = useLit();
  const cursor = useCursorStore();
  const columns = useMemo(
    () => createColumns(planned, new Map(changes?.cuts.map(({ wireId, fromMm }) => [wireId, fromMm])), lit, cursor),
    [planned, changes, lit, cursor],
  );
  return (
    <DataTable
      name="wires"
      label="Wires of the loom"
      rows={wires}
      columns={columns}
      keyOf={({ id }) => id}
      isHere={({ id }) => id === lit}
      seek={lit}
      isEven
      empty={
        plan.wires.length === 0 ? (
          <NextAction
            words="Each wire with its size, why that size, and every millimetre its cut length is made of. No wires yet: they come from circuits, which join pins; or from a wire list."
            at={`bundle?loom=${planned.loomId}&tab=circuits`}
            action="Add circuits"
          />
        ) : (
          <p className={styles.wait}>
            No wire under the cursor.{' '}
            <button className={styles.link} onClick={() => setAll(true)}>
              show all {plan.wires.length}
            </button>
          </p>
        )
      }
    >
      <button className={styles.link} aria-pressed={all} onClick={() => setAll(!all)}>
        {all ? `all ${plan.wires.length}, show those under the cursor` : `${wires.length} under the cursor, show all ${plan.wires.length}`}
      </button>
    </DataTable>
  );
}

function createColumns(
  { loom, plan }: PlannedLoom,
  was: ReadonlyMap<string, number | null>,
  lit: string | null,
  cursor: ReturnType<typeof useCursorStore>,
): Column<PlannedWire>[] {
  const longest = plan.wires.reduce((most, { cutMm }) => Math.max(most, cutMm), 1);
  const labels = new Map(plan.splices.map(({ id, label }) => [id, label]));
  const where = (end: PlannedWire['from']) =>
    end.kind === 'cavity' ? `${loom.ends[end.endId]!.name} · ${end.cavity}` : `splice ${labels.get(end.spliceId)!}`;
  const place = (id: 'from' | 'to'): Column<PlannedWire> => ({
    id,
    head: id,
    value: (wire) => where(wire[id]),
    cell: (wire) => <span title={where(wire[id])}>{toShort(where(wire[id]))}</span>,
  });
  return [
    {
      id: 'wire',
      head: 'wire',
      className: 'mono',
      value: ({ number }) => number,
      cell: ({ id, number }) => (
        <button
          className={styles.number}
          aria-pressed={id === lit}
          title="Show it on the strip from end to end"
          onClick={() => cursor.light(id === lit ? null : id)}
        >
          {number}
        </button>
      ),
    },
    { id: 'colour', head: 'colour', value: ({ colour }) => toColourWords(colour), cell: ({ colour }) => <Swatch colour={colour} /> },
    place('from'),
    place('to'),
    {
      id: 'size',
      head: 'size',
      value: ({ conductor }) => toSizeWords(conductor),
      cell: (wire) => <Why because={<WhySize wire={wire} />}>{toSizeWords(wire.conductor)}</Why>,
    },
    {
      id: 'cut',
      head: 'cut mm',
      isNumber: true,
      value: ({ cutMm }) => cutMm,
      cell: (wire) =>
        wire.heldBy.length ? (
          <Why because={`${isHeldFromCutting(wire) ? 'Held from cutting' : 'It is cut'}: ${wire.heldBy.map(toHoldWords).join(', ')}.`}>
            <b style={{ color: 'var(--action)' }}>
              {isHeldFromCutting(wire) ? 'held' : 'waits'} {wire.cutMm}
            </b>
          </Why>
        ) : (
          <Why because={<WhyCut wire={wire} />}>
            <b>{wire.cutMm}</b>
          </Why>
        ),
    },
    {
      id: 'was',
      head: '',
      className: styles.was,
      cell: ({ id, cutMm }) => {
        const before = was.get(id) ?? null;
        return before !== null && before !== cutMm ? `was ${before}` : '';
      },
    },
    {
      id: 'made',
      head: 'made of',
      cell: (wire) => (
        <span className={styles.bar} style={{ width: `${Math.max(6, (210 * wire.cutMm) / longest)}px` }} aria-hidden="true">
          {wire.addends.map((addend, at) => (
            <span key={at} style={{ background: TINT[addend.kind], flexGrow: addend.mm }} />
          ))}
        </span>
      ),
    },
  ];
}

const toShort = (words: string) => (words.length > 25 ? `${words.slice(0, 24)}…` : words);

const WhySize = ({ wire: { conductor, ruledBy, because } }: { wire: PlannedWire }) => (
  <>
    {toSizeWords(conductor)}, {conductor.areaMm2} mm², {conductor.odMm} mm over the insulation.
    <br />
    Ruled by <b>{ruledBy}</b>: {because}.
  </>
);

/** Every term of a cut length. */
export function WhyCut({ wire }: { wire: PlannedWire }) {
  return (
    <Table unstyled>
      <tbody>
        {wire.addends.map((addend, index) => (
          <tr key={index}>
            <td className="mono" style={{ textAlign: 'right', paddingRight: 12 }}>
              {addend.mm.toFixed(1)}
            </td>
            <td>
              <i style={{ display: 'inline-block', width: 10, height: 10, marginRight: 6, background: TINT[addend.kind] }} />
              {addend.words}
            </td>
          </tr>
        ))}
        <tr>
          <td className="mono" style={{ textAlign: 'right', paddingRight: 12, borderTop: '1.5px solid var(--ink)' }}>
            <b>{wire.cutMm}</b>
          </td>
          <td style={{ borderTop: '1.5px solid var(--ink)' }}>
            to cut; ± {wire.sigmaMm.toFixed(0)} mm on the path, so rough cut {wire.roughMm}
          </td>
        </tr>
      </tbody>
    </Table>
  );
}
