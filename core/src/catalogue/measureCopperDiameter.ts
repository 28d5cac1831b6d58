/** share of the round that strands fill in a concentric-stranded conductor (ASTM B286: 19 strands, 0.78) */
const FILL = 0.78;

/** Over the strands of a conductor, mm. */
export const measureCopperDiameter = ({ areaMm2 }: { areaMm2: number }): number => 2 * Math.sqrt(areaMm2 / FILL / Math.PI);
