/** What happens on a floor, as a tablet tells it. */
export type FloorKind =
  | 'tick'
  | 'untick'
  | 'problem'
  | 'solved'
  | 'reading'
  | 'take'
  | 'leave'
  | 'answer'
  | 'hand'
  | 'down'
  /** a tool's gauges were tried; words: what did not pass */
  | 'gauge'
  /** crimps were pulled apart */
  | 'sample'
  /** another reel, lot or setting; words say which */
  | 'changeover'
  /** a time between two ticks was work, or was none; words: id of the event that ended it */
  | 'worked'
  | 'paused';
