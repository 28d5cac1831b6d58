/** How often a test of many runs repeats itself: few times among the others, often in npm run soak. */
export const runs = (few: number, often: number): number => (process.env.WATTOGRAPH_SOAK === '1' ? often : few);
