import { toNextNumber, type Circuit } from '../../../model';
import { createId } from '../../createId';
import { createLoomCommand, type Command } from '../command';

/**
 * A circuit as it is written, null: a new one; a cable is one thing, so what else lies in it goes along. A new one whose number was
 * given meanwhile takes the next.
 */
export const keepCircuit = (loomId: string, circuitId: string | null, circuit: Circuit): Command =>
  createLoomCommand(`${circuitId === null ? 'add' : 'change'} circuit ${circuit.number}`, loomId, ({ circuits }) => {
    const isTaken = circuitId === null && Object.values(circuits).some(({ number }) => number === circuit.number);
    const number = isTaken ? toNextNumber({ circuits }) : circuit.number;
    const keptId = circuitId ?? createId(circuits, 'c');
    circuits[keptId] = { ...circuit, number, name: circuit.name.trim() };
    const { cable } = circuit;
    if (!cable) return;
    for (const [id, other] of Object.entries(circuits))
      if (id !== keptId && other.cable?.groupId === cable.groupId) other.cable = { ...other.cable, itemId: cable.itemId };
  });

export const removeCircuit = (loomId: string, circuitId: string, number: string): Command =>
  createLoomCommand(`remove circuit ${number}`, loomId, ({ circuits }) => void delete circuits[circuitId]);
