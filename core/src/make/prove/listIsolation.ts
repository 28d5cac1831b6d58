import type { ShopStandard } from '../../catalogue';
import type { Loom } from '../../model';
import { toProbeKey, type Probe, type ProofTest, type ProvedNet } from './types';

/** Name of a reading between two probes. */
export const toPairId = (from: Probe, to: Probe): string => `${toProbeKey(from)} ${toProbeKey(to)}`;

/** Name of the reading of a net against all others. */
export const toIsolationId = (from: Probe): string => `${toProbeKey(from)} others`;

/** Every net once, tied together, against all others tied together: as many measurements as nets, not one for every two. */
export const listIsolation = (nets: readonly ProvedNet[], leastMegohm: number): ProofTest[] =>
  nets.map(({ id, probes }) => ({
    ...{ id: toIsolationId(probes[0]!), kind: 'isolate', netId: id, from: probes[0]!, to: null, wires: [] },
    ...{ unit: 'MΩ', atA: null, expected: null, least: leastMegohm, most: null },
  }));

/** What isolation a loom is asked for, and at which direct voltage (craft E1): less where some of its wire was in use before. */
export const findIsolation = (
  { hasReusedWire }: Pick<Loom, 'hasReusedWire'>,
  standard: Pick<ShopStandard, `isolation${'' | 'Reused'}${'Megohm' | 'Volts'}`>,
): { megohm: number; volts: number } =>
  hasReusedWire
    ? { megohm: standard.isolationReusedMegohm, volts: standard.isolationReusedVolts }
    : { megohm: standard.isolationMegohm, volts: standard.isolationVolts };
