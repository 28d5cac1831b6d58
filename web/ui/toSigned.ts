/** A difference with its sign, to so many places; what comes to nothing there has none: never "−0.0". */
export function toSigned(value: number, digits: number): string {
  const words = Math.abs(value).toFixed(digits);
  return Number(words) === 0 ? words : `${value > 0 ? '+' : '−'}${words}`;
}
