/** A part of a loom that is led through a hole by itself: an end with its housing, on its own leg. */
export interface FeedPiece {
  id: string;
  /** least round hole that it passes, mm */
  envelopeMm: number;
  /** its leg, mm: what of it lies in the hole once it is through */
  odMm: number;
}

/** The same in its turn: what is through before it, and what both ask of the hole, mm. */
export type FedPiece<Piece extends FeedPiece> = Piece & { throughMm: number; needMm: number; passes: boolean };

export interface FeedOrder<Piece extends FeedPiece> {
  /** in the order in which they go through; those that do not pass come last */
  pieces: FedPiece<Piece>[];
  /** the fewest housings that have to be off for the rest to pass */
  offIds: string[];
}

/**
 * Order in which parts are led through a hole, one after another (craft I2). What is through already counts with the sum of its diameters, and
 * never with more than the whole bundle that lies there in the end. Those that pass beside the whole bundle may go last. Of the others each has
 * to go before the sum gets too thick for it: the latest sum that it bears is a due date and its leg the time it takes, so that the fewest
 * that come too late are known at once (Moore 1968, exact). wholeMm, freeMm: the whole bundle, and the hole without what is left free in it.
 */
export function orderFeed<Piece extends FeedPiece>(pieces: readonly Piece[], freeMm: number, wholeMm: number): FeedOrder<Piece> {
  const bySlack = [...pieces].sort((a, b) => b.envelopeMm - b.odMm - (a.envelopeMm - a.odMm));
  const isEasy = ({ envelopeMm }: Piece) => envelopeMm + wholeMm <= freeMm + EPSILON;
  const early: Piece[] = [];
  const late = bySlack.filter(({ envelopeMm }) => envelopeMm > freeMm + EPSILON);
  const isLate = new Set(late);
  let sumMm = 0;
  for (const piece of bySlack) {
    if (isEasy(piece) || isLate.has(piece)) continue;
    early.push(piece);
    sumMm += piece.odMm;
    if (sumMm <= freeMm - piece.envelopeMm + piece.odMm + EPSILON) continue;
    const thickest = early.reduce((most, one) => (one.odMm > most.odMm ? one : most));
    early.splice(early.indexOf(thickest), 1);
    late.push(thickest);
    sumMm -= thickest.odMm;
  }
  const ordered = [...early, ...bySlack.filter((one) => isEasy(one) && !isLate.has(one)), ...late];
  return { pieces: leadThrough(ordered, freeMm, wholeMm), offIds: late.map(({ id }) => id) };
}

/** The parts in this order, each with what the hole has to give. */
export function leadThrough<Piece extends FeedPiece>(ordered: readonly Piece[], freeMm: number, wholeMm: number): FedPiece<Piece>[] {
  let sumMm = 0;
  return ordered.map((piece) => {
    const throughMm = Math.min(sumMm, wholeMm);
    sumMm += piece.odMm;
    const needMm = throughMm + piece.envelopeMm;
    return { ...piece, throughMm, needMm, passes: needMm <= freeMm + EPSILON };
  });
}

/** The least hole in whole mm through which all of them go as they are; leaveMm: what stays free in it. */
export function measureLeastBore(pieces: readonly FeedPiece[], wholeMm: number, leaveMm: number): number {
  const largestMm = pieces.reduce((most, { envelopeMm }) => Math.max(most, envelopeMm), 0);
  const toBore = (mm: number) => Math.ceil(mm + leaveMm - EPSILON);
  // beside the whole bundle the largest passes, and with it all; without it none does
  let [tooSmall, enough] = [toBore(Math.max(wholeMm, largestMm)) - 1, toBore(wholeMm + largestMm)];
  while (enough - tooSmall > 1) {
    const boreMm = Math.floor((tooSmall + enough) / 2);
    if (orderFeed(pieces, boreMm - leaveMm, wholeMm).offIds.length > 0) tooSmall = boreMm;
    else enough = boreMm;
  }
  return enough;
}

const EPSILON = 1e-9;
