/** Round half away from zero to so many decimals; for figures that are shown, never inside a calculation. */
export function roundTo(value: number, decimals: number): number {
  const scale = 10 ** decimals;
  return (Math.sign(value) * Math.round(Math.abs(value) * scale + 1e-9)) / scale;
}
