import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { ModeSchema, SourceSchema, type Mode, type Source } from '../power/power';
import { ZoneSchema, type Zone } from '../vehicle/zone';

/** A zone, a mode and a source as a shop keeps them: what its new jobs begin with. */
export const ZoneItemSchema = Type.Object({ id: IdSchema, ...ZoneSchema.properties }, { additionalProperties: false });
export type ZoneItem = Static<typeof ZoneItemSchema>;
export const ModeItemSchema = Type.Object({ id: IdSchema, ...ModeSchema.properties }, { additionalProperties: false });
export type ModeItem = Static<typeof ModeItemSchema>;
const { isolator: _, ...figures } = SourceSchema.properties;
export const SourceItemSchema = Type.Object({ id: IdSchema, name: NameSchema, ...figures }, { additionalProperties: false });
export type SourceItem = Static<typeof SourceItemSchema>;

/** What a job begins with before anybody has said anything of the vehicle; each a field that the planner can change. */
export interface JobStart {
  zones: Record<string, Zone>;
  modes: Record<string, Mode>;
  source: Source;
}

/** What new jobs of a shop begin with, with one of its sources. */
export function toJobStart(
  { zones, modes }: { zones: readonly ZoneItem[]; modes: readonly ModeItem[] },
  { id: _id, name: _name, ...source }: SourceItem,
): JobStart {
  return {
    zones: Object.fromEntries(zones.map(({ id, ...zone }) => [id, zone])),
    modes: Object.fromEntries(modes.map(({ id, ...mode }) => [id, mode])),
    source: { ...source, isolator: null },
  };
}

const zone = (id: string, name: string, ambientC: number, rest: Partial<ZoneItem> = {}): ZoneItem => ({
  id,
  name,
  ambientC,
  wet: false,
  abrasion: false,
  flexing: false,
  reopen: false,
  handled: false,
  clipEveryMm: null,
  ...rest,
});

/** What jobs of every shop began with until a shop could say it. */
export const COMMON_START = {
  zones: [
    zone('cabin', 'cabin', 50, { clipEveryMm: 300 }),
    zone('engine', 'engine bay', 90),
    zone('hot', 'hot side', 150),
    zone('wet', 'wet side', 60, { wet: true }),
    zone('flex', 'moving run', 60, { flexing: true }),
  ],
  modes: [
    { id: 'isolated', name: 'isolator open', engine: 'off' },
    { id: 'bypass', name: 'isolator open, by-pass on', engine: 'off' },
    { id: 'key-off', name: 'key off', engine: 'off' },
    { id: 'key-on', name: 'key on', engine: 'off' },
    { id: 'display', name: 'parked, display on', engine: 'off' },
    { id: 'crank', name: 'cranking', engine: 'cranking' },
    { id: 'idle', name: 'idle', engine: 'running' },
    { id: 'night', name: 'full power at night', engine: 'running' },
    { id: 'wet', name: 'wet', engine: 'running' },
  ],
  sources: [
    {
      ...{ id: 'battery', name: 'small battery, metal body', volts: 12.5, milliohm: 8, chassisMilliohm: 1 },
      ...{ continuousA: null, capacityAh: null },
    },
  ],
} as const satisfies { zones: readonly ZoneItem[]; modes: readonly ModeItem[]; sources: readonly SourceItem[] };
