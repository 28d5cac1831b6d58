/** 0 → a, 25 → z, 26 → aa. */
export const toLetters = (index: number): string =>
  (index < 26 ? '' : toLetters(Math.floor(index / 26) - 1)) + String.fromCharCode(97 + (index % 26));
