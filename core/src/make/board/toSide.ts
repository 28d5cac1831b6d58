/** Seen from above, 12 o'clock up: by 3 it leaves to the right, by 9 to the left; up or down, or not surveyed, neither. */
export function toSide(leavesDeg: number | null): 'left' | 'right' | null {
  if (leavesDeg === null) return null;
  if (leavesDeg > 30 && leavesDeg < 150) return 'right';
  return leavesDeg > 210 && leavesDeg < 330 ? 'left' : null;
}
