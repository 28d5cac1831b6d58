import type { Circuit } from '../../../model';
import { createLoomCommand, type Command } from '../command';

/** A circuit as it is written; a cable is one thing, so what else lies in it goes along. */
export const keepCircuit = (loomId: string, circuitId: string, circuit: Circuit, isNew: boolean): Command =>
  createLoomCommand(`${isNew ? 'add' : 'change'} circuit ${circuit.number}`, loomId, ({ circuits }) => {
    circuits[circuitId] = { ...circuit, name: circuit.name.trim() };
    const { cable } = circuit;
    if (!cable) return;
    for (const [id, other] of Object.entries(circuits))
      if (id !== circuitId && other.cable?.groupId === cable.groupId) other.cable = { ...other.cable, itemId: cable.itemId };
  });

export const removeCircuit = (loomId: string, circuitId: string, number: string): Command =>
  createLoomCommand(`remove circuit ${number}`, loomId, ({ circuits }) => void delete circuits[circuitId]);
