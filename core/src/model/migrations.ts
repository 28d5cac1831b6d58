import { FORMAT_VERSION } from './job';

/** One step of the file format: what it does in a name, and from which version it leads to the next. */
export interface Migration {
  from: number;
  name: string;
  run(document: Record<string, unknown>): Record<string, unknown>;
}

/** Every step since the first format, in order and without gaps. A test runs each. */
export const MIGRATIONS: readonly Migration[] = [
  {
    from: 1,
    name: 'add-own-families-and-accepted-findings',
    run: (document) => ({ ...document, formatVersion: 2, families: {}, accepted: {} }),
  },
];

/** Bring a document of an older format to the present one; throws with the versions when it cannot. */
export function toPresentFormat(document: Record<string, unknown>): Record<string, unknown> {
  const written = document.formatVersion;
  if (typeof written !== 'number' || !Number.isInteger(written)) return document;
  let version = written;
  if (version > FORMAT_VERSION) {
    throw new RangeError(`/formatVersion: expected at most ${FORMAT_VERSION}, got ${version}: this file was written by a newer Wattograph`);
  }
  let present = document;
  while (version < FORMAT_VERSION) {
    const step = MIGRATIONS.find((migration) => migration.from === version);
    if (!step) throw new RangeError(`/formatVersion: expected 1 to ${FORMAT_VERSION}, got ${version}`);
    present = step.run(present);
    version = present.formatVersion as number;
  }
  return present;
}
