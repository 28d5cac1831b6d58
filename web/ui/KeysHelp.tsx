import { Modal, Table } from '@mantine/core';

/** What a screen is for and how it is worked with, in six lines. */
const SCREENS: Record<string, readonly string[]> = {
  brief: [
    'What is built, for whom and by when; the shop standard and house style it follows.',
    'Devices: what is fitted, kept or taken out, and where it goes. Its pins come with it.',
    'Open items: what is not known yet. One may hold a wire from being cut until it is answered.',
    'Zones say how hot, wet or moving a place is; House style, what this job does as the shop does or otherwise.',
    'Donor loom: an old one, wire by wire, with what is kept of it. Mates: which plugs go together.',
    'Next: Survey for the route, or a wire list from a spreadsheet.',
  ],
  survey: [
    'Made for a phone at the vehicle; it works without a network and sends when there is one.',
    'Choose the datum, lay a tape along the route, and type each mark as you read it.',
    'Breakout, Hole or End says what the mark is; a leg is read from its breakout, which you touch.',
    'A second reading shows how sure a length is; the spread goes into rough lengths.',
    'Ticks (hot, wet, moving, sharp) decide covering and insulation further on.',
    'After the trial fit, fitted lengths go in here too; trims say what comes off.',
  ],
  circuits: [
    'Every pin of every device, and what it leads to; red ones are open or wrong.',
    'Press a pin, then a place for it on a box; or press a to have all open ones assigned, with reasons.',
    'Boxes shows what each controller has left: channels, outputs, 5 V rails.',
    'The tape above narrows the list to one end.',
    'A finding has a button that mends it, where there is a way.',
    'Next: Power, where currents and drops of the same circuits are.',
  ],
  power: [
    'The tree from the battery out: each fuse, channel and relay with what it feeds.',
    'Press a part to see its currents (while on, heating, at switch-on), its drop and its fuse.',
    'A figure with a dotted line says why when you point at it.',
    'Heat along it shows the hottest stretch of a loom, in each mode; Source, modes says when what runs.',
    'In seconds follows what happens when a load is stuck or a feed is cut.',
    'What is over its limit stands above the tree with a button that mends it.',
  ],
  bundle: [
    'The loom along its tape: move the pointer or walk with the arrows; the section shows the cut there.',
    'Drag a breakout, or press Enter and type a length; below it says what that changes.',
    'Wires that splice, sizes, coverings and lengths are computed; point at one to read why.',
    'Press a wire’s number, or / and type it, to see the wire from end to end.',
    'A tag with a number of splices opens to a list; + and − zoom, w gives the strip the screen.',
    'Next: Dress for what covers it, then Ends for each connector.',
  ],
  dress: [
    'The loom from the datum on: every run, breakout and end as it is covered and closed; ↑ and ↓ walk along it.',
    'A run shows its covering and every other that the shop has, with what each comes to and why it is not taken.',
    'Ends and breakouts are drawn from the wire outwards; pieces slide on by their numbers.',
    'Below the picture: what stands back while the end is made, and whether there is room for it.',
    'What is chosen by hand is asked for its reason; the reason prints on the sheets.',
    'Next: Ends for each connector, then Sheets for the pack.',
  ],
  ends: [
    'Each connector, wire side or mating side, cavities in the colours of their wires.',
    'A line a cavity: contact, seal, strip length; what is common to all stands above.',
    'A housing that nobody chose is named so, with those that would fit.',
    'Empty cavities and look-alikes nearby are said here, before somebody mates the wrong two.',
    'What is wrong with a crimp stands in its row.',
    'Next: Board, or Sheets.',
  ],
  board: [
    'The loom at full scale on a board of the shop, branches as they are laid.',
    'Search the layout turns the branches so that nothing is too near and little board is taken.',
    'Drag a branch, or choose it and press ← or →; what is chosen by hand stays when it is searched again.',
    'Print: pages of the printer with a bar of 100 mm. Measure it before anything is laid by them.',
    'When a length changes, the pages that no longer hold are named; they alone are printed anew.',
    'Next: Sheets.',
  ],
  sheets: [
    'The pack for the crew as it will print, page by page.',
    'Release makes a numbered revision that never changes; stops have to be settled first.',
    'A released revision is what Floor works from; ticks whose work is unchanged count on.',
    'Lists and the job go out as files from the menu.',
    'Print prints the pages without what is round them, or only those that changed since a revision; a PDF likewise.',
    'Next: Floor, at the bench.',
  ],
};

const KEYS = [
  ['1 to 7, 9, 0', 'Brief, Survey, Circuits, Power, Bundle, Dress, Ends; Board; Sheets'],
  ['f, p', 'Floor; Prove'],
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
  [
    '↑ ↓',
    'in the list of Dress: along the loom; in a table: the same column of the row above or below; Ctrl-C copies it, a block is pasted from a cell on',
  ],
  ['Esc', 'leave a dialog or a drag'],
] as const;

/** What this screen is, and all keys. slug: the station that is open. */
export function KeysHelp({ slug, opened, onClose }: { slug: string; opened: boolean; onClose: () => void }) {
  const lines = SCREENS[slug];
  return (
    <Modal opened={opened} onClose={onClose} title={lines ? 'This screen, and its keys' : 'Keys'} size="lg">
      {lines && (
        <ol style={{ margin: '0 0 14px', paddingLeft: 20 }}>
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ol>
      )}
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
