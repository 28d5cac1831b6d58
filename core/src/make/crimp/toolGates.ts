import type { CrimpDeed } from './followCrimps';
import { CRIMP_STEP } from './types';

/** A tool as the shop has it on the day. */
export interface BenchTool {
  name: string;
  /** has the shop a tool of that name? */
  isListed: boolean;
  /** what to set or gauge before a session */
  setting: string;
  /** last day of its calibration; null: it needs none */
  dueDay: string | null;
  /** is that day over, or needs it one that nobody stated? */
  isPast: boolean;
  gauged: boolean;
  /** since its last service */
  crimps: number;
  /** after so many it is serviced */
  serviceCrimps: number;
}

/** What stands between a person and a tool. */
export interface ToolGate {
  tool: BenchTool;
  /** why it is not used */
  stops: string[];
  /** its gauges are to be tried before the first contact of this session */
  asksGauge: boolean;
}

/**
 * Whether a tool may be used now (craft D3): its calibration, its gauges before each session of each person, its service. What somebody's gauge
 * refused stays refused for all until one passes.
 *
 * @param sessionMs when the session of whoever asks began; null: none is on
 */
export function toToolGate(tool: BenchTool, deeds: readonly CrimpDeed[], author: string, sessionMs: number | null): ToolGate {
  const tried = deeds.filter(({ kind, stepId, itemId }) => kind === 'gauge' && stepId === CRIMP_STEP && itemId === tool.name);
  const bad = tried.at(-1)?.words ? tried.at(-1)! : null;
  const isGauged = tried.some((one) => one.author === author && one.words === '' && sessionMs !== null && one.atMs >= sessionMs);
  return {
    tool,
    stops: [
      ...(tool.isListed ? [] : ['no tool of the shop has that name: neither its calibration nor its gauge is known']),
      ...(tool.isPast ? [tool.dueDay === null ? 'no calibration on record' : `its calibration ended on ${tool.dueDay}`] : []),
      ...(tool.crimps >= tool.serviceCrimps ? [`${tool.crimps} crimps since its service: it is serviced after ${tool.serviceCrimps}`] : []),
      ...(bad ? [`its gauge did not pass: ${bad.words} (${bad.author})`] : []),
    ],
    asksGauge: tool.gauged && !isGauged,
  };
}
