/** One question on which shops differ, with the sides they take. Side 0 is this shop's unless its standard says otherwise. */
export interface HouseQuestion {
  id: string;
  question: string;
  sides: readonly string[];
}

/** Questions of the house style. A job may take another side, with a reason. */
export const HOUSE_STYLE: readonly HouseQuestion[] = [
  { id: 'joints', question: 'Joints', sides: ['crimped, with adhesive sleeve', 'soldered or solder sleeves, supported and sealed'] },
  { id: 'lengths', question: 'Lengths from', sides: ['the engine or vehicle itself, rough cut then final cut', 'board, old loom or rope'] },
  { id: 'bundle', question: 'Bundle', sides: ['concentric lay with fillers', 'straight and tied, pairs only twisted'] },
  { id: 'covering', question: 'Covering', sides: ['by zone', 'one covering for all'] },
  { id: 'donor', question: 'Donor loom', sides: ['reused: factory crimps stay', 'new: no joins, right geometry'] },
  {
    id: 'breaks',
    question: 'Breaks',
    sides: ['modular, connectors at the firewall and at what is lifted off', 'one piece, fewest contacts'],
  },
  { id: 'ends', question: 'Device ends', sides: ['a connector on every device', 'hard pigtails, potted, on what is rarely changed'] },
  { id: 'colour', question: 'Colour', sides: ['by function', 'factory scheme', 'single colour with printed marks', 'base with bands'] },
  { id: 'begin', question: 'Begin at', sides: ['the anchor end', 'any other end'] },
  { id: 'power', question: 'Power', sides: ['solid-state module', 'relays and fuses', 'mixed'] },
  { id: 'slack', question: 'Slack', sides: ['exact after fitting', 'some to clock or re-terminate'] },
  { id: 'unknown', question: 'Device of unknown place', sides: ['end in a connector, tail later', 'full length, unterminated, coiled'] },
  { id: 'grounds', question: 'Sensor grounds', sides: ['groups by noise on their own controller pins', 'all to one point'] },
  { id: 'screens', question: 'Screens', sides: ['drained at the controller end only', 'drained at the engine ground only'] },
  { id: 'feeds', question: 'Shared feeds', sides: ['power tree first', 'hang all, group and splice at the end'] },
  { id: 'connectors', question: 'Connectors go on', sides: ['after the sleeves', 'first, with pigtails, covered afterwards'] },
  { id: 'dummies', question: 'Dummy parts', sides: ['together on one pigtail', 'where they are needed'] },
  { id: 'spares', question: 'Spares', sides: ['10 % of cavities, a spare wire to each corner', 'lean'] },
  { id: 'test', question: 'Bench test', sides: ['continuity, then powered with the controller', 'continuity only, then in the vehicle'] },
];
