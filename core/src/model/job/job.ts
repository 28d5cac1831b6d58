import { Type, type Static } from '@sinclair/typebox';
import { BriefSchema, createBrief, MateSchema } from './brief';
import { DeviceSchema, DeviceTemplateSchema } from '../vehicle/device';
import { DonorSchema } from '../vehicle/donor';
import { ConnectorFamilySchema } from '../shop/family';
import { IdSchema, literals, NameSchema, ReasonSchema, recordOf } from '../ids';
import { LoomSchema, createLoom, type Loom } from '../loom/loom';
import { AnchorSchema, createAnchors, OpenItemSchema } from './openItem';
import { InlinePartsSchema, ModesSchema, SourceSchema } from '../power/power';
import { FIRST_STARTS, ProvingSchema } from './proving';
import { TaskSchema } from './task';
import { SurveyConflictSchema } from '../survey/surveyEntry';
import { ZoneSchema } from '../vehicle/zone';
import type { JobStart } from './jobStart';

export const FORMAT = 'wattograph-job';
export const FORMAT_VERSION = 19;

/** A finding that the planner lets stand, with the reason that prints in the pack. */
export const AcceptedFindingSchema = Type.Object({ reason: ReasonSchema, by: NameSchema }, { additionalProperties: false });

/** The whole job: what a user saves, what the server stores, what the plan is computed from. */
export const JobSchema = Type.Object(
  {
    format: Type.Literal(FORMAT),
    formatVersion: Type.Literal(FORMAT_VERSION),
    name: NameSchema,
    customer: Type.String({ maxLength: 80 }),
    standardId: IdSchema,
    notes: Type.String({ maxLength: 8000 }),
    zones: recordOf(ZoneSchema),
    shopVersion: Type.Union([Type.Integer({ minimum: 1 }), Type.Null()], {
      description: 'version of the shop that it is planned with; null: it is in no shop yet',
    }),
    families: recordOf(ConnectorFamilySchema, { description: 'connector families of this job alone, beside those of the catalogue' }),
    deviceTemplates: recordOf(DeviceTemplateSchema, { description: 'kinds of device of this job alone, beside those of the catalogue' }),
    brief: BriefSchema,
    devices: recordOf(DeviceSchema),
    anchors: recordOf(AnchorSchema),
    openItems: recordOf(OpenItemSchema),
    tasks: recordOf(TaskSchema, { description: 'what has to be made or agreed before work goes on' }),
    provings: recordOf(ProvingSchema, { description: 'what first power asks for beside what the wires say' }),
    startsOn: literals(FIRST_STARTS, { description: 'where the engine starts for the first time' }),
    donors: recordOf(DonorSchema),
    looms: recordOf(LoomSchema),
    mates: recordOf(MateSchema),
    modes: ModesSchema,
    source: SourceSchema,
    parts: InlinePartsSchema,
    surveyConflicts: recordOf(SurveyConflictSchema, { description: 'entries of a survey that met something else, kept until settled' }),
    accepted: Type.Record(Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_.@:+-]{0,120}$' }), AcceptedFindingSchema, {
      additionalProperties: false,
      description: 'finding key → why it may stand',
    }),
  },
  { additionalProperties: false, $id: 'https://wattograph.invalid/schema/job-19.json', title: 'Wattograph job' },
);
export type Job = Omit<Static<typeof JobSchema>, 'looms'> & { looms: Record<string, Loom> };

/** A new job with one empty loom, made to this house style. */
export function createJob(name: string, customer: string, standardId: string, { zones, modes, source }: JobStart): Job {
  return {
    format: FORMAT,
    formatVersion: FORMAT_VERSION,
    name,
    customer,
    standardId,
    notes: '',
    shopVersion: null,
    zones,
    families: {},
    deviceTemplates: {},
    brief: createBrief(),
    devices: {},
    anchors: createAnchors(),
    openItems: {},
    tasks: {},
    provings: {},
    startsOn: 'vehicle',
    donors: {},
    looms: { main: createLoom('main', 'W') },
    mates: {},
    modes,
    source,
    parts: {},
    surveyConflicts: {},
    accepted: {},
  };
}
