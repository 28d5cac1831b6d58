/** Sizes of type, mm. */
export interface Type {
  size: number;
  leading: number;
  /** what is read at arm's length */
  big: number;
  /** heads of columns, foot of the page */
  small: number;
  heading: number;
}

/** Nothing under 9 pt on what a crew reads, 14 pt for what it reads at arm's length (craft.md, the pack); a planner's print may be finer. */
export const TYPES: Readonly<Record<'crew' | 'office', Type>> = {
  crew: { size: 3.2, leading: 4.1, big: 5, small: 3.2, heading: 5 },
  office: { size: 2.9, leading: 3.7, big: 2.9, small: 2.5, heading: 3.9 },
};
