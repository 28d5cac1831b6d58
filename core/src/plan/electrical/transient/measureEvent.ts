import type { EventRun, LoadEvent } from './createEvent';
import { measureTransient, type Transient } from './measureTransient';

/** The stretch that an event brings nearest to its short-time limit, or furthest past it, over time. */
export interface EventHeat {
  run: EventRun;
  points: Transient['points'];
  /** hottest, °C, and when, s */
  mostC: number;
  mostS: number;
  /** when it opens at the earliest, °C there; null: it does not open */
  earliestC: number | null;
  /** first time at which the short-time limit is passed; null: never */
  harmS: number | null;
  /** of every stretch, in the order of the event's runs, °C */
  eachC: number[];
}

/**
 * Temperature over time on every stretch of an event, and the worst of them (calculations 4). Null where no stretch is known.
 * onRun: called after each stretch with the count so far.
 */
export function measureEvent({ runs, seconds, opens }: LoadEvent, onRun?: (done: number) => void): EventHeat | null {
  let worst: EventHeat | null = null;
  const eachC: number[] = [];
  runs.forEach((run, index) => {
    const breaksS = [...run.stages.map(({ untilS }) => untilS), ...(opens ? [opens.shortestS] : [])];
    const { points } = measureTransient({ ...run, seconds, wattsPerMAt20: toWatts(run), breaksS });
    const hottest = points.reduce((most, point) => (point.middleC > most.middleC ? point : most));
    eachC.push(hottest.middleC);
    if (!worst || hottest.middleC - run.shortC > worst.mostC - worst.run.shortC)
      worst = {
        run,
        points,
        mostC: hottest.middleC,
        mostS: hottest.seconds,
        earliestC: opens ? findAt(points, opens.shortestS) : null,
        harmS: points.find(({ middleC }) => middleC > run.shortC)?.seconds ?? null,
        eachC,
      };
    onRun?.(index + 1);
  });
  return worst;
}

const toWatts =
  ({ stages }: EventRun) =>
  (seconds: number): number =>
    (stages.find(({ untilS }) => seconds < untilS) ?? stages.at(-1)!).wattsPerMAt20;

/** Between the points on either side. */
function findAt(points: Transient['points'], seconds: number): number {
  const after = points.findIndex((point) => point.seconds >= seconds);
  if (after === -1) return points.at(-1)!.middleC;
  if (after === 0) return points[0]!.middleC;
  const [a, b] = [points[after - 1]!, points[after]!];
  return a.middleC + ((b.middleC - a.middleC) * (seconds - a.seconds)) / (b.seconds - a.seconds);
}
