/** Seconds that the environment sets: more than 0, at most so many. Throws with what was expected. */
export function readSeconds(name: string, usual: number, most: number): number {
  const asked = process.env[name] === undefined ? usual : Number(process.env[name]);
  if (!(asked > 0 && asked <= most))
    throw new Error(`${name}: expected seconds, more than 0 and at most ${most}, got ${process.env[name]}`);
  return asked;
}
