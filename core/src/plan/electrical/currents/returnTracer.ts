import type { CircuitKind } from '../../../model';
import type { CurrentStep, PathContext, ReturnPath, When } from './currentPaths';
import type { Currents } from './currents';
import { isSink } from './measureCurrents';
import type { PathClimber } from './pathClimber';

const perWhen = <T>() => ({ cranking: new Map<number, T>(), other: new Map<number, T>() });

/** Finds the ways home of loads: by pins, drivers, cases, strap and chassis to battery negative (calculations 3). */
export class ReturnTracer {
  /** ways back found so far, by node; many loads share them */
  private readonly returns = perWhen<ReturnPath | null>();
  private readonly chassis = perWhen<ReturnPath | null>();
  /** from the chassis to battery negative */
  private readonly tieSteps = new Map<When, readonly CurrentStep[]>();
  /** does the job have a battery, so that a body that leads nowhere is known to */
  private readonly hasBattery: boolean;

  constructor(
    private readonly context: PathContext,
    private readonly climber: PathClimber,
    /** pins of the box that a pin belongs to */
    private readonly listBox: (node: number) => readonly number[],
  ) {
    this.hasBattery = context.netlist.nodes.some(({ offer }) => offer?.can.includes('battery-negative'));
  }

  /** The ways back of a load: by its case, or by the return pins of its box; null where there is none. */
  traceBack(node: number, when: When): ReturnPath | null {
    const { netlist } = this.context;
    const need = netlist.nodes[node]!.need!;
    if (need.returnBy === 'engine-case') return this.traceEngine(when);
    if (need.returnBy === 'chassis-case') return this.traceCase(node, when);
    const box = this.listBox(node);
    const ofKind = (...kinds: CircuitKind[]) => box.filter((one) => kinds.includes(netlist.nodes[one]!.need?.kind as CircuitKind));
    const first = need.kind === 'sensor-supply' ? ofKind('sensor-ground') : ofKind('power-ground', 'output');
    const second = first.length ? first : ofKind(need.kind === 'sensor-supply' ? 'power-ground' : 'sensor-ground');
    // a switch or a current loop without any ground goes home by its signal
    const returns = second.length ? second : ofKind('signal');
    const next = returns.map((one) => this.traceReturn(one, when));
    return next.length === 0 || next.includes(null) ? null : { steps: [], next: next as ReturnPath[] };
  }

  private traceReturn(node: number, when: When): ReturnPath | null {
    const known = this.returns[when].get(node);
    if (known !== undefined) return known;
    // a way that would lead back into itself leads nowhere
    this.returns[when].set(node, null);
    const made = this.makeReturn(node, when);
    this.returns[when].set(node, made);
    return made;
  }

  private makeReturn(node: number, when: When): ReturnPath | null {
    const { netlist } = this.context;
    const { steps, root } = this.climber.climb(node, 'back', when);
    if (root === null) return null;
    const { offer } = netlist.nodes[root]!;
    const onwards = offer?.can.includes('chassis')
      ? this.traceChassis(root, when)
      : offer?.can.includes('engine-block')
        ? this.traceEngine(when)
        : undefined;
    if (onwards !== undefined) return onwards && { steps, next: [onwards] };
    if (!isSink(offer)) return { steps, next: [] };
    // a driver sends it on through the grounds of its box, which share it
    const grounds = this.listBox(root).filter((one) => netlist.nodes[one]!.need?.kind === 'power-ground');
    const next = grounds.map((ground) => this.traceReturn(ground, when));
    return { steps, next: next.includes(null) ? [] : (next as ReturnPath[]) };
  }

  /** From a ground stud through the chassis by what that stud carries, to the tie and by it to battery negative; null: it leads nowhere. */
  private traceChassis(stud: number, when: When): ReturnPath | null {
    const known = this.chassis[when].get(stud);
    if (known !== undefined) return known;
    const { flows, netlist, job } = this.context;
    const own = netlist.nodes[stud]!.offer!.chassisMilliohm ?? job.source.chassisMilliohm;
    const net = flows.nets[netlist.netOf[stud]!]!;
    const way = this.traceBody(own === 'none' ? null : own, net.current, 'through the chassis', when);
    this.chassis[when].set(stud, way);
    return way;
  }

  /** From a case that is bolted to the chassis. */
  private traceCase(node: number, when: When): ReturnPath | null {
    const { flows, job } = this.context;
    return this.traceBody(job.source.chassisMilliohm, flows.drawn[node] ?? null, 'by its case through the chassis', when);
  }

  private traceBody(milliohm: number | null, flow: Currents | null, words: string, when: When): ReturnPath | null {
    const { flows } = this.context;
    if (milliohm === null || (this.hasBattery && flows.bodies.ties.length === 0)) return null;
    const first: CurrentStep = {
      kind: 'chassis',
      way: 'back',
      words,
      loomId: null,
      wireId: null,
      linkId: null,
      edge: -1,
      milliohm,
      currentA: this.climber.measureMost(flow, when),
      flow,
      counts: true,
      isBody: false,
    };
    return { steps: [first, ...this.traceTie(when)], next: [] };
  }

  /** From the chassis to battery negative. */
  traceTie(when: When): readonly CurrentStep[] {
    const tie = this.context.flows.bodies.ties[0];
    if (!tie) return [];
    const known = this.tieSteps.get(when) ?? this.climber.climb(tie.node, 'back', when).steps;
    this.tieSteps.set(when, known);
    return known;
  }

  /** From the engine block over its strap; null where it has none. Without a battery in the job nothing is known of it. */
  private traceEngine(when: When): ReturnPath | null {
    const { engine } = this.context.flows.bodies;
    if (engine) return this.traceReturn(engine.node, when);
    return this.hasBattery ? null : { steps: [], next: [] };
  }
}
