/** A need that was given a place, and why that one. */
export interface Assigned {
  need: string;
  place: string;
  because: string;
}

/** Needs that together have fewer places than they are, and what would help. */
export interface AssignConflict {
  need: string;
  /** a least set: without any one of them the others could be placed */
  competing: string[];
  places: string[];
  wouldTake: string;
}
