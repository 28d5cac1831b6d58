/** "45 min", "8.2 h"; below one, "under a minute". */
export function toTimeWords(minutes: number): string {
  if (minutes > 0 && minutes < 1) return 'under a minute';
  return minutes < 100 ? `${Math.round(minutes)} min` : `${(minutes / 60).toFixed(1)} h`;
}
