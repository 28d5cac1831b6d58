/** the demo job that the tour goes through */
export const TOUR_JOB = '5ee12000-0000-4000-8000-000000000012';

export interface TourStep {
  title: string;
  /** what is seen here */
  words: string;
  /** something to do, that harms nothing: every edit can be undone */
  attempt: string;
  /** address after that of the job; null: the wall */
  at: string | null;
  /** what is framed meanwhile */
  frame: string | null;
}

/** Five minutes, in the order of the work. */
export const TOUR: readonly TourStep[] = [
  {
    title: 'What is built, and what is not known yet',
    words:
      'Brief has every device of the car: fitted, kept or taken out, and its pins with it. An open item holds the wires that rest on it from being cut until somebody answers it.',
    attempt: 'Open the tab Open items and see what each one blocks.',
    at: 'brief',
    frame: '[role=tablist]',
  },
  {
    title: 'The route, measured at the car',
    words:
      'Survey is for a phone: lay a tape from the datum, type each mark, say what leaves there. It works without a network. How a length was measured says how sure it is.',
    attempt: 'Look at the strip as it grows from the marks.',
    at: 'survey',
    frame: null,
  },
  {
    title: 'Every pin has somewhere to go',
    words:
      'Circuits lists what each pin needs. Pressing a assigns all that are open to the controllers and says why each went where it did; a pin that cannot be served stays red.',
    attempt: 'Press a pin to see its way through every loom to the box.',
    at: 'circuits?loom=chassis',
    frame: 'main table',
  },
  {
    title: 'Fuses, drops and heat by rule',
    words:
      'Power is the tree from the battery out. Wire sizes follow from drop, fuse and heat, each with its own current. A figure with a dotted line says why when you point at it.',
    attempt: 'Press the fuel pump, then change what it draws and watch the fuse.',
    at: 'power?loom=chassis',
    frame: '[aria-label="Power tree"]',
  },
  {
    title: 'The loom along its tape',
    words:
      'Bundle draws the loom as it lies. Drag a breakout and every cut length, sleeve and gram behind it is worked out again; the line below says what changed.',
    attempt: 'Walk with the arrow keys and watch the section on the right.',
    at: 'bundle?loom=engine',
    frame: '[aria-label^="Strip of"]',
  },
  {
    title: 'One wire out of two hundred',
    words:
      'Press / and type a number, an end or a finding. A wire that is found lights up from end to end, and its row says every millimetre that its cut length is made of.',
    attempt: 'Press / and type C-105.',
    at: 'bundle?loom=chassis',
    frame: '[aria-label^="Strip of"]',
  },
  {
    title: 'Each end as the crimper sees it',
    words:
      'Ends shows a face from the wire side, and a line a cavity: wire, contact, seal, strip length and the force it has to bear. A look-alike next to it is named.',
    attempt: 'Flip the face to the mating side.',
    at: 'ends?loom=engine',
    frame: '[aria-label="Cavities"]',
  },
  {
    title: 'A pack that never changes',
    words:
      'Sheets is what the crew gets: cut list, faces, strip plan, labels. Releasing freezes a numbered revision; what changes later becomes the next one, and ticks that still hold are kept.',
    attempt: 'Turn the pages; Release stays closed while there is something to stop for.',
    at: 'sheets?loom=inlet',
    frame: null,
  },
  {
    title: 'Your own loom',
    words:
      'Begin with New job. A wire list from your spreadsheet is enough for a first loom: say which column is which, and choose housings later. ? tells on every screen what it is for.',
    attempt: 'New job, then Brief, then A loom from a wire list.',
    at: null,
    frame: null,
  },
];
