/** A screened cable where it is opened at an end: how far jacket, screen and insulation are taken back, from the tips of its cores; mm. */
export interface PlannedScreen {
  endId: string;
  groupId: string;
  cableName: string;
  /** over the jacket, and over a core */
  jacketMm: number;
  coreMm: number;
  /** cores that end here */
  wireIds: string[];
  /** cores that nothing is wired to here */
  unused: number;
  /** the wire that takes the screen to its cavity here; null: it is cut and ends under its sleeve */
  drainId: string | null;
  /** bared core, for the contact */
  stripMm: number;
  /** insulation left over the edge of the screen, and screen left over the edge of the jacket */
  insulationMm: number;
  screenMm: number;
  /** all of that: the jacket goes back so far */
  backMm: number;
  /** sleeve over the edge of the screen; null: no sleeve of the shop does */
  sleeveId: string | null;
  sleeveName: string;
  sleeveMm: number;
}

/** Rings as they lie on a stud. */
export interface PlannedStud {
  endId: string;
  studMm: number;
  /** from the foot of the stud outwards: the thickest copper first */
  rings: { wireIds: string[]; contactName: string; areaMm2: number }[];
  /** what shows which pole it is; null: neither */
  band: 'red' | 'black' | null;
  /** null: the shop does not say for this thread */
  torqueNm: number | null;
  /** rings, washer and nut, mm; null: the shop does not say how thick its rings are */
  stackMm: number | null;
  /** thread that there is; null: not measured */
  threadMm: number | null;
}
