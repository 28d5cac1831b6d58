'use client';

import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import {
  listCrimpKinds,
  setWireLoop,
  toColourWords,
  toSizeWords,
  type CrimpKind,
  type End,
  type PlannedTermination,
  type PlannedWire,
} from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursorStore } from '../../ui/cursor';
import { LengthField } from '../../ui/fields/LengthField';
import { Swatch } from '../../ui/Swatch';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import bundle from '../bundle/Bundle.module.css';
import styles from './Ends.module.css';

interface Row {
  key: string;
  cavity: string;
  /** null where what the device needs there is not wired */
  one: PlannedTermination | null;
  wires: readonly PlannedWire[];
  kind: CrimpKind | null;
  need: End['pins'][string] | null;
}

/** What goes into every cavity of an end, a line each; what many have in common is said once above them. */
export function CavitiesTable({ planned, endId }: { planned: PlannedLoom; endId: string }) {
  const { loom, loomId, plan } = planned;
  const end = loom.ends[endId]!;
  const here = useMemo(() => plan.terminations.filter((one) => one.endId === endId), [plan, endId]);
  const crimps = useMemo(() => listCrimpKinds(here), [here]);
  const rows = useMemo(() => {
    const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
    const wired = here.map((one, index): Row => {
      const list = one.wireIds.map((id) => wires.get(id)!);
      return { key: `${one.cavity} ${index}`, cavity: one.cavity, one, wires: list, kind: crimps.kindOf(one), need: null };
    });
    const open = Object.entries(end.pins)
      .filter(([cavity]) => !here.some((one) => one.cavity === cavity))
      .map(([cavity, need]): Row => ({ key: `need ${cavity}`, cavity, one: null, wires: [], kind: null, need }));
    return [...wired, ...open];
  }, [plan, here, crimps, end]);
  const store = useJobStore();
  const cursor = useCursorStore();
  const router = useRouter();
  const columns = useMemo(
    () =>
      createColumns(
        loom,
        end,
        ({ id, pieces }) => {
          cursor.light(id);
          if (pieces[0]) cursor.set({ segmentId: pieces[0].segmentId, offsetMm: (pieces[0].fromMm + pieces[0].toMm) / 2 });
          router.push(`bundle?loom=${loomId}`);
        },
        (cavity, mm) => store.edit(setWireLoop({ loomId, endId, name: end.name }, cavity, mm)),
      ),
    [loom, loomId, end, endId, store, cursor, router],
  );
  return (
    <>
      {crimps.kinds.length > 0 && (
        <ul className={styles.crimps} aria-label="Crimps">
          {crimps.kinds.map((kind) => (
            <li key={kind.letter} data-wrong={kind.problem !== null}>
              <b className="mono">{kind.letter}</b> {toCrimpWords(kind)}
              {crimps.kinds.length > 1 && <span className="faint">, {kind.count} of them</span>}
            </li>
          ))}
        </ul>
      )}
      <div
        className={styles.cavities}
        style={rows.length === 0 || rows.length > FEW ? undefined : { flex: 'none', height: HEAD_PX + rows.length * ROW_PX }}
      >
        <DataTable
          name="cavities"
          label={`Cavities of ${end.name}`}
          rows={rows}
          columns={columns}
          keyOf={({ key }) => key}
          empty={
            <p className="faint">
              No wires here yet. Circuits are added on Bundle, tab Circuits; what a device needs at its pins is said below its face.
            </p>
          }
        />
      </div>
    </>
  );
}

/** so few rows are given their height, so that what comes below stands close to them; more scroll in what room there is */
const FEW = 8;
const HEAD_PX = 72;
const ROW_PX = 34;

/** "Hollin size 22 contact, grommet; strip 4 mm; four-indent crimper, positioner H22". */
const toCrimpWords = ({ contactName, sealName, stripMm, tool, positioner }: CrimpKind) =>
  [
    [contactName, sealName === 'grommet' ? '' : sealName].filter(Boolean).join(', '),
    stripMm === null ? '' : `strip ${stripMm} mm`,
    [tool, positioner].filter(Boolean).join(', '),
  ]
    .filter(Boolean)
    .join('; ');

const toProblemWords = ({ problem, sealName, contactName }: PlannedTermination) =>
  problem ? ` ▲ ${problem === 'seal' ? `seal: ${sealName}` : contactName}` : '';

function createColumns(
  loom: PlannedLoom['loom'],
  end: End,
  light: (wire: PlannedWire) => void,
  setLoop: (cavity: string, mm: number | null) => void,
): Column<Row>[] {
  return [
    {
      id: 'cavity',
      head: 'cavity',
      className: 'mono',
      value: ({ cavity }) => cavity,
      cell: ({ cavity, one }) => (one ? <b>{cavity}</b> : cavity),
    },
    {
      id: 'wire',
      head: 'wire',
      className: 'mono',
      value: ({ wires }) => wires.map(({ number }) => number).join(' '),
      cell: ({ wires }) =>
        wires.map((wire) => (
          <button key={wire.id} className={bundle.number} title="Show it on the strip from end to end" onClick={() => light(wire)}>
            {wire.number}{' '}
          </button>
        )),
    },
    {
      id: 'colour',
      head: 'colour',
      value: ({ wires }) => (wires[0] ? toColourWords(wires[0].colour) : null),
      cell: ({ wires }) => wires[0] && <Swatch colour={wires[0].colour} />,
    },
    {
      id: 'circuit',
      head: 'circuit',
      className: styles.circuit,
      value: ({ wires, need }) => (wires[0] ? loom.circuits[wires[0].circuitId]!.name : `${need!.function}: not connected`),
      cell: ({ wires, need }) =>
        wires[0] ? (
          <span title={loom.circuits[wires[0].circuitId]!.name}>{loom.circuits[wires[0].circuitId]!.name}</span>
        ) : (
          <span style={{ color: need!.required ? 'var(--action)' : undefined }}>{need!.function}: not connected</span>
        ),
    },
    {
      id: 'size',
      head: 'size',
      className: `faint ${styles.size}`,
      value: ({ wires }) => wires.map(({ conductor }) => toSizeWords(conductor)).join(', '),
    },
    {
      id: 'crimp',
      head: 'crimp',
      className: 'mono',
      value: ({ kind, one }) => (one ? `${kind!.letter}${toProblemWords(one)}` : null),
      cell: ({ kind, one }) =>
        one && (
          <span title={toCrimpWords(kind!)} style={one.problem ? { color: 'var(--action)', fontWeight: 700 } : undefined}>
            {kind!.letter}
            {toProblemWords(one)}
          </span>
        ),
    },
    {
      id: 'pull',
      head: 'pull N',
      isNumber: true,
      value: ({ one }) => one?.pullOffsN[0] ?? null,
      cell: ({ one }) => one?.pullOffsN.map((force) => force ?? '–').join(', '),
    },
    {
      id: 'loop',
      head: 'own loop mm',
      isNumber: true,
      value: ({ cavity }) => end.wireLoops[cavity] ?? null,
      cell: ({ cavity, one }) =>
        one && (
          <LengthField
            label={`Loop of the wire in cavity ${cavity}`}
            optional
            value={end.wireLoops[cavity] ?? null}
            onChange={(mm) => setLoop(cavity, mm)}
          />
        ),
    },
  ];
}
