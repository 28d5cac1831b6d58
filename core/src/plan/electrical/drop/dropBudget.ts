/** A drop budget: of a load, over the elements on its way out and back. */
export interface DropBudget {
  elements: readonly number[];
  /** drop that no size changes, V */
  fixedV: number;
  /** wires that it takes as they are: they are chosen for others */
  taken: readonly { edge: number; currentA: number }[];
  budgetV: number;
  /** of the load */
  name: string;
}
