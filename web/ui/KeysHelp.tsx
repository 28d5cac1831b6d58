import { Modal, Table } from '@mantine/core';

const KEYS = [
  ['1, 2, 3, 4, 5, 7, 0', 'Brief, Survey, Circuits, Power, Bundle, Ends, Sheets'],
  ['f', 'Floor'],
  ['/', 'find or do anything'],
  ['?', 'this list'],
  ['u, U', 'undo, redo (also Ctrl-Z)'],
  ['← →', 'walk along the strip 5 mm, with Shift 50'],
  ['↓ ↑', 'into the next branch, back to the strip it leaves'],
  ['Enter', 'type the length of the run under the cursor'],
  ['+ −', 'zoom the strip about the cursor; Ctrl and the wheel about the pointer'],
  ['w', 'the strip on the whole screen, and back'],
  ['a', 'in Circuits: assign what is open'],
  ['← →, Esc', 'on the tape in Circuits and Power: to the next end, and all ends again'],
  ['0–9, b h e', 'in Survey: type a distance, then Breakout, Hole or End'],
  ['Esc', 'leave a dialog or a drag'],
] as const;

export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys">
      <Table>
        <Table.Tbody>
          {KEYS.map(([key, does]) => (
            <Table.Tr key={key}>
              <Table.Td className="mono">{key}</Table.Td>
              <Table.Td>{does}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}
