import { toSizeWords } from '../../catalogue';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** EN1, stop: no contact takes the wire, or no seal fits its insulation. */
export const checkContacts: Rule = (context) => {
  const wires = new Map(context.plan.wires.map((wire) => [wire.id, wire]));
  return context.plan.terminations.flatMap((one): Finding[] => {
    if (one.problem === null) return [];
    const end = context.loom.ends[one.endId]!;
    const here = one.wireIds.map((id) => wires.get(id)!);
    const words = here.map(({ conductor }) => toSizeWords(conductor)).join(' with ');
    const sentence =
      one.problem === 'contact'
        ? `No contact of ${end.name} cavity ${one.cavity} takes ${words}.`
        : `No seal of ${end.name} cavity ${one.cavity} fits ${words} (${here.map(({ conductor }) => `${conductor.odMm} mm`).join(' with ')}).`;
    const circuitId = here[0]!.circuitId;
    const circuit = context.loom.circuits[circuitId]!;
    return [
      createFinding(
        context,
        'EN1',
        [
          { kind: 'end', id: one.endId },
          { kind: 'circuit', id: `${circuitId}-${one.cavity}` },
        ],
        sentence,
        {
          fix:
            circuit.sizePin && here.length === 1
              ? {
                  label: `Let the size of ${circuit.name} be computed`,
                  patch: [{ op: 'replace', path: `/looms/${context.loomId}/circuits/${circuitId}/sizePin`, value: null }],
                }
              : null,
        },
      ),
    ];
  });
};
