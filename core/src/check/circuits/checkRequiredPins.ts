import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, PlainRule } from '../types';

/** CI1, stop: a device needs something at a cavity that no circuit reaches. The fix joins it to a circuit of the kind that neighbours use. */
export const checkRequiredPins: PlainRule = (context) => {
  const { loomId, loom } = context;
  const used = new Set(Object.values(loom.circuits).flatMap(({ terminations }) => terminations.map((one) => `${one.endId} ${one.cavity}`)));
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId) => {
      const end = loom.ends[endId]!;
      return Object.keys(end.pins)
        .sort(compareIds)
        .flatMap((cavity): Finding[] => {
          const pin = end.pins[cavity]!;
          if (!pin.required || used.has(`${endId} ${cavity}`)) return [];
          const shared = pin.kind === 'sensor-ground' || pin.kind === 'sensor-supply' || pin.kind === 'power-ground';
          const candidates = Object.keys(loom.circuits)
            .sort(compareIds)
            .filter((id) => loom.circuits[id]!.kind === pin.kind && loom.circuits[id]!.join === 'splice');
          const joined = shared
            ? candidates.reduce<string | undefined>(
                (best, id) =>
                  best === undefined || loom.circuits[id]!.terminations.length > loom.circuits[best]!.terminations.length ? id : best,
                undefined,
              )
            : undefined;
          return [
            createFinding(
              context,
              'CI1',
              [
                { kind: 'end', id: endId },
                { kind: 'circuit', id: `${endId}-${cavity}` },
              ],
              `${end.name} has no ${pin.function}: cavity ${cavity} is not connected.`,
              joined === undefined
                ? {}
                : {
                    fix: {
                      label: `Join cavity ${cavity} to ${loom.circuits[joined]!.name}`,
                      patch: [{ op: 'add', path: `/looms/${loomId}/circuits/${joined}/terminations/-`, value: { endId, cavity } }],
                    },
                  },
            ),
          ];
        });
    });
};
