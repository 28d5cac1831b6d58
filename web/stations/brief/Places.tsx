'use client';

import type { Blocked, Job } from 'wattograph-core';
import { Pick } from '../../ui/fields/Pick';
import styles from './Brief.module.css';

type Named<Place extends Blocked> = Place & { words: string };

const toKey = ({ loomId, kind, id }: Blocked) => `${loomId} ${kind} ${id}`;

/** Everything of a job that something can be for, or hold up. withCircuits: circuits too. */
export function listPlaces(job: Job, withCircuits: true): Named<Blocked>[];
export function listPlaces(job: Job, withCircuits: false): Named<Blocked & { kind: 'loom' | 'end' | 'segment' }>[];
export function listPlaces(job: Job, withCircuits: boolean): Named<Blocked>[] {
  return Object.entries(job.looms).flatMap(([loomId, loom]): Named<Blocked>[] => [
    { loomId, kind: 'loom', id: loomId, words: `all of ${loom.name}` },
    ...Object.entries(loom.ends).map(([id, end]) => ({ loomId, kind: 'end' as const, id, words: `${loom.name} · ${end.name}` })),
    ...Object.entries(loom.segments).map(([id, segment]) => ({
      loomId,
      kind: 'segment' as const,
      id,
      words: `${loom.name} · run to ${loom.nodes[segment.toNodeId]!.name}`,
    })),
    ...Object.entries(withCircuits ? loom.circuits : {}).map(([id, circuit]) => ({
      loomId,
      kind: 'circuit' as const,
      id,
      words: `${loom.name} · circuit ${circuit.name}`,
    })),
  ]);
}

/** Words of a place, also of one that has gone since. */
export function toPlaceWord(all: readonly Named<Blocked>[]): (place: Blocked) => string {
  const words = new Map(all.map((one) => [toKey(one), one.words]));
  return (place) => words.get(toKey(place)) ?? 'what is no longer there';
}

/** Places that are chosen, each to be taken away, and one more to choose. */
export function Places<Place extends Blocked>({
  label,
  remove,
  all,
  chosen,
  onChange,
}: {
  label: string;
  /** what taking one away says */
  remove: string;
  all: readonly Named<Place>[];
  chosen: readonly Place[];
  onChange: (places: Place[]) => void;
}) {
  const toWords = toPlaceWord(all);
  const keys = new Set(chosen.map(toKey));
  return (
    <>
      {chosen.map((place) => (
        <span key={toKey(place)} className={styles.chip}>
          {toWords(place)}
          <button aria-label={remove} onClick={() => onChange(chosen.filter((one) => one !== place))}>
            ×
          </button>
        </span>
      ))}
      <Pick
        label={label}
        value={null}
        none={chosen.length ? 'and …' : 'nothing …'}
        options={all.filter((one) => !keys.has(toKey(one))).map((one) => ({ value: toKey(one), label: one.words }))}
        onChange={(key) => {
          const { words: _, ...place } = all.find((one) => toKey(one) === key)!;
          onChange([...chosen, place as unknown as Place]);
        }}
      />
    </>
  );
}
