import { findFamily, type Catalogue } from '../catalogue';
import { isFromTheSide, type Job, type Loom } from '../model';
import type { Step } from '../make';
import { findStandard, type LoomPlan } from '../plan';

/**
 * Plays the steps of a loom on a model of its own of wires, sleeves, housings and hands: what is on which run, which ends are closed, what
 * stands back where. Written from how the work is done, not from how it is planned. Gives what could not have been done, in words.
 */
export function playShop(job: Job, plan: LoomPlan, catalogue: Catalogue, steps: readonly Step[]): string[] {
  const shop = new PlayedShop(job, plan, catalogue);
  for (const step of steps) shop.play(step);
  return shop.wrong;
}

class PlayedShop {
  readonly wrong: string[] = [];
  private readonly loom: Loom;
  private readonly done = new Set<string>();
  /** closed sleeves on their run, and what is shrunk or tied there */
  private readonly on = new Set<string>();
  private readonly fixed = new Set<string>();
  private readonly closedEnds = new Set<string>();
  private readonly forks = new Set<string>();
  /** small pieces that stand on the leg of an end, mm */
  private readonly standing = new Map<string, number>();

  constructor(
    private readonly job: Job,
    private readonly plan: LoomPlan,
    private readonly catalogue: Catalogue,
  ) {
    this.loom = job.looms[plan.loomId]!;
  }

  play(step: Step): void {
    const kind = step.id.slice(0, step.id.indexOf('.'));
    const id = step.id.slice(kind.length + 1);
    const act = this.acts[kind];
    act?.(id);
    this.done.add(step.id);
  }

  private readonly acts: Record<string, (id: string) => void> = {
    slide: (id) => {
      const item = this.item(id);
      if (!item || isFromTheSide(item)) return;
      const most = 'suppliedBoreMm' in item ? item.suppliedBoreMm / 1.1 : 'expandedBoreMm' in item ? 0.9 * item.expandedBoreMm : null;
      this.threadOn(`the sleeve of ${id}`, id, most);
      this.on.add(id);
    },
    cover: (id) => {
      const item = this.item(id);
      this.must(!item || isFromTheSide(item) || this.on.has(id), `the sleeve of ${id} is not on`);
      this.fixed.add(id);
    },
    fork: (id) => {
      for (const leg of this.plan.breakoutDress.find(({ nodeId }) => nodeId === id)!.legSegmentIds) {
        this.threadOn(`what goes over ${id}`, leg, null);
        this.must(!this.on.has(leg), `what goes over ${id} does not go over the sleeve on ${leg}`);
      }
      this.forks.add(id);
    },
    label: (id) => this.stand(id, this.dress(id)?.parking.pieces.find(({ name }) => name.startsWith('label'))?.lengthMm ?? 0),
    boot: (id) =>
      this.stand(
        id,
        this.dress(id)!.pieces.reduce((sum, { cutMm }) => sum + cutMm, 0),
      ),
    thread: (id) => this.must(!this.done.has(`crimp.${id}`), `a crimped contact does not go through the housing of ${id}`),
    crimp: (id) => {
      const isPulled = findFamily(this.job, this.catalogue, this.loom.ends[id]!.familyId)?.seating === 'pull-to-seat';
      this.must(!isPulled || this.done.has(`thread.${id}`), `${id} is crimped before its wires are through the housing`);
      this.makeEnd(id);
    },
    close: (id) => {
      const { segmentId } = this.dress(id)!;
      this.must(this.done.has(`boot.${id}`) && this.closedEnds.has(id), `${id} is closed up before it is made`);
      const isBare = this.plan.coverings.find((one) => one.segmentId === segmentId)!.kind === 'none';
      this.must(isBare || this.fixed.has(segmentId), `${id} is closed up on a bare leg`);
    },
    seat: (id) => this.must(!this.isLate(id) || this.done.has('route'), `${id} is pinned before it is led through`),
    repin: (id) => this.must(this.done.has('route') && this.done.has(`depin.${id}`), `${id} is pinned again before it is led through`),
    route: () => this.lead(),
    test: (id) =>
      this.must(this.done.has('route') && (this.done.has(`seat.${id}`) || this.done.has(`crimp.${id}`)), `${id} is rung too early`),
    forkclose: (id) => this.must(this.forks.has(id), `what goes over ${id} is not on`),
  };

  private isLate = (endId: string) => {
    const { kind, pinAt, nodeId } = this.loom.ends[endId]!;
    return kind === 'connector' && pinAt === 'vehicle' && nodeId !== this.plan.tree.datumId;
  };

  /** End by end through each hole: a housing that is on, or no more than the wires, beside what is through already. */
  private lead(): void {
    for (const { nodeId, boreMm, leaveMm, pieces, wholeMm } of this.plan.feeds) {
      let throughMm = 0;
      for (const { id, odMm } of pieces) {
        const isOff = this.done.has(`bunch.${id}`) || this.done.has(`depin.${id}`);
        const isHoused = !isOff && this.loom.ends[id]!.kind === 'connector';
        const envelopeMm = isHoused ? findFamily(this.job, this.catalogue, this.loom.ends[id]!.familyId)!.envelopeMm : odMm;
        const needMm = Math.min(throughMm, wholeMm) + envelopeMm;
        this.must(needMm <= boreMm - leaveMm + 1e-6, `${id} asks ${needMm} mm of ${boreMm} at ${nodeId}`);
        throughMm += odMm;
      }
    }
  }

  private must(isSo: boolean, words: string): void {
    if (!isSo) this.wrong.push(words);
  }

  private dress = (endId: string) => this.plan.endDress.find((one) => one.endId === endId);
  private legOf = (endId: string) => this.plan.tree.nodes[this.loom.ends[endId]!.nodeId]!.parentSegmentId;
  private nearer = (segmentId: string) => this.plan.tree.nodes[this.plan.tree.segments[segmentId]!.nearNodeId]!.parentSegmentId;

  private item(segmentId: string) {
    const { itemId } = this.plan.coverings.find((one) => one.segmentId === segmentId)!;
    return this.catalogue.coverings.find(({ id }) => id === itemId);
  }

  private runsBeyond(segmentId: string): string[] {
    const { nodes, segments } = this.plan.tree;
    return nodes[segments[segmentId]!.farNodeId]!.childSegmentIds.flatMap((id) => [id, ...this.runsBeyond(id)]);
  }

  /** Something closed comes from the far ends to a run: nothing beyond may be in its way. */
  private threadOn(what: string, segmentId: string, passesMm: number | null): void {
    const beyond = this.runsBeyond(segmentId);
    const nodes = new Set([segmentId, ...beyond].map((id) => this.plan.tree.segments[id]!.farNodeId));
    for (const [endId, { nodeId, familyId }] of Object.entries(this.loom.ends)) {
      if (!nodes.has(nodeId)) continue;
      const envelopeMm = findFamily(this.job, this.catalogue, familyId)?.envelopeMm ?? 0;
      const isOver = passesMm !== null && envelopeMm <= passesMm;
      this.must(isOver || !this.closedEnds.has(endId), `${what} does not go over ${endId}, which is closed`);
      this.must((this.standing.get(endId) ?? 0) === 0, `${what} does not go over what stands at ${endId}`);
    }
    for (const id of beyond) this.must(!this.on.has(id), `${what} does not go over the sleeve on ${id}`);
  }

  /** Pieces come on at an end and stand there. */
  private stand(endId: string, lengthMm: number): void {
    const leg = this.legOf(endId);
    if (leg === null) return this.must(this.on.size === 0, `what closes ${endId} does not go over the sleeves that are on`);
    const item = this.item(leg);
    const isOver = this.loom.segments[leg]!.slideOn === 'after-ends' || !item || isFromTheSide(item);
    this.must(!this.closedEnds.has(endId), `nothing slides on ${endId}: it is closed`);
    this.must(isOver || this.on.has(leg), `the sleeve of ${leg} comes after what stands at ${endId}`);
    this.standing.set(endId, (this.standing.get(endId) ?? 0) + lengthMm);
  }

  /** Room on the leg of an end, and behind it as far as nothing is covered or twisted. */
  private makeEnd(endId: string): void {
    const leg = this.legOf(endId);
    if (this.closedEnds.has(endId)) return;
    this.closedEnds.add(endId);
    // the anchor is made from loose wires
    if (leg === null) return;
    const { tree, coverings, layups } = this.plan;
    const covering = coverings.find((one) => one.segmentId === leg)!;
    const { braidPushes, stripRoomMm } = findStandard(this.job, this.catalogue);
    const isPushed = this.on.has(leg) && !this.fixed.has(leg);
    const needMm = (this.standing.get(endId) ?? 0) + (isPushed ? covering.cutMm * (covering.kind === 'braid' ? braidPushes : 1) : 0);
    const isTwisted = (segmentId: string) =>
      layups.some(({ id, segmentIds }) => segmentIds.includes(segmentId) && [...this.done].some((one) => one.startsWith(`layup.${id}.`)));
    let roomMm = tree.segments[leg]!.lengthMm - (needMm > 0 ? stripRoomMm : 0);
    for (let at = this.nearer(leg); at !== null && !this.fixed.has(at) && !isTwisted(at); at = this.nearer(at))
      roomMm += tree.segments[at]!.lengthMm;
    // what has no room is told beforehand (DR4)
    this.must(needMm <= roomMm + 1e-6 || !this.dress(endId)!.parking.fits, `at ${endId} ${needMm} mm stand back on ${roomMm} mm`);
  }
}
