import { planPottings, type PlannedPotting } from '../../plan';
import { createItem, createStep, toMadeId, type Need, type StepContext } from '../createStep';
import type { Ask, Step } from '../step';

/** Item of the pouring: what cures is counted from its tick. */
export const POURED = 'poured';
/** What the hours of a cure are called among what a wait asks for. */
export const CURE = 'hours of cure';

/** A trial piece for each resin that a loom takes, and for each potted end: ring, pour, wait, ring again, mark. */
export function listPotSteps(context: StepContext): Step[] {
  const pottings = planPottings(context.job, context.plan, context.catalogue);
  const resins = [...new Map(pottings.map(({ resin }) => [resin.id, resin])).values()];
  return [
    ...resins.map(({ id, name, partA, partB }) =>
      createStep(`trial.${id}`, 'pot', `Trial piece with ${name}`, {
        tool: 'scales to 0.01 g, cup, a scrap device',
        parts: [name],
        items: [
          createItem('made', `mixed ${partA} to ${partB} by mass, poured round scrap wires`, [], null, [{ what: 'resin', value: name }]),
          createItem('judged', 'hard through, no bubbles, holds the wires: accepted; else mix and pour it again', [], null, []),
        ],
      }),
    ),
    ...pottings.flatMap((potting) => listEndPotSteps(context, potting)),
  ];
}

/** What has to be done before contacts go on a device that is potted: it is rung by itself first. */
export const listDeviceNeeds = (isPotted: boolean, endId: string): Need[] =>
  isPotted ? [{ stepId: `device.${endId}`, because: 'what is potted cannot be changed: the device is rung first' }] : [];

/** What closes over a potted end waits until it is hard and rung. */
export const listHardNeeds = (isPotted: boolean, endId: string): Need[] =>
  isPotted ? [{ stepId: `hard.${endId}`, because: 'it is closed when the resin is hard and has been rung' }] : [];

function listEndPotSteps(context: StepContext, potting: PlannedPotting): Step[] {
  const { loom, terminations, wires, anchorId, fits } = context;
  const { endId, resin, massG, partAG, partBG, cureH, workshopC, twinIds } = potting;
  const { name } = loom.ends[endId]!;
  const own = terminations.get(endId)!.flatMap(({ wireIds }) => wireIds.map((id) => wires.get(id)!));
  const hasScreen = own.some(({ kind }) => kind === 'screen');
  const twins = twinIds.map((id) => loom.ends[id]!.name).join(', ');
  const mix: Ask[] = [
    { what: 'resin', value: resin.name },
    { what: 'mix', value: `${partAG.toFixed(2)} + ${partBG.toFixed(2)} g` },
  ];
  const device = createStep(`device.${endId}`, 'ring', `Ring the device of ${name} by itself`, {
    endId,
    // an anchor is filled before anything is laid
    needs: endId === anchorId ? [] : [fits.ofEnd(endId, 'device ends are made after the trial fit')],
    tool: 'ohmmeter',
    items: [createItem('rung', `reads as its sheet says${twins ? `; it is the one of ${name}, not of ${twins}` : ''}`, [], null, [])],
  });
  const contacts = createStep(`contacts.${endId}`, 'ring', `Ring ${name} through to its device`, {
    endId,
    needs: [{ stepId: toMadeId(context, endId), because: 'its contacts are on the blades' }],
    tool: 'ohmmeter',
    items: [
      createItem('through', 'every wire reads through the device, from its far end', own, null, []),
      ...(hasScreen ? [createItem('screen', 'screen trimmed back behind the cavity, sleeved, clear of every contact', [], null, [])] : []),
    ],
  });
  const pot = createStep(`pot.${endId}`, 'pot', `Pot ${name}`, {
    endId,
    needs: [
      { stepId: contacts.id, because: 'nothing is potted before it has been rung' },
      { stepId: `trial.${resin.id}`, because: 'the mix is proved on scrap first' },
    ],
    tool: 'scales to 0.01 g, cup, syringe',
    parts: [`${resin.name}, ${massG.toFixed(1)} g`],
    items: [
      createItem(
        'mixed',
        `${partAG.toFixed(2)} g + ${partBG.toFixed(2)} g, stirred until no streak is left; ${potting.potLifeMin} min to pour`,
        [],
        null,
        mix,
      ),
      createItem(POURED, `${potting.volumeMl.toFixed(2)} ml poured from one corner, level with the rim, no bubbles`, [], null, mix),
    ],
  });
  const cure = createStep(`cure.${endId}`, 'wait', `Let ${name} cure`, {
    endId,
    needs: [{ stepId: pot.id, because: 'it cures from then on' }],
    items: [
      createItem('cured', `${toHours(cureH)} h at ${workshopC} °C: level, not moved, not powered; hard to the nail`, [], null, [
        { what: CURE, value: Math.round(cureH * 10) / 10 },
      ]),
    ],
  });
  return [device, contacts, pot, cure, createHardStep(name, potting, cure.id, own)];
}

function createHardStep(
  name: string,
  { endId, straightMm, loopRadiusMm, loopMm }: PlannedPotting,
  cureId: string,
  own: Parameters<typeof createItem>[2],
): Step {
  const loop = `${straightMm} mm straight behind the resin, then three quarters of a turn of ${Math.ceil(loopRadiusMm)} mm radius (${Math.round(loopMm)} mm), tied`;
  return createStep(`hard.${endId}`, 'ring', `Ring, mark and loop ${name}`, {
    endId,
    needs: [{ stepId: cureId, because: 'rung when it is hard' }],
    tool: 'ohmmeter, marker',
    items: [
      createItem('through', 'every wire still reads through the device', own, null, []),
      createItem('serial', 'serial number and day on the device, and in the record', [], null, []),
      createItem('loop', loop, [], null, [{ what: 'loop', value: Math.round(loopMm) }]),
    ],
  });
}

const toHours = (hours: number) => (hours < 10 ? hours.toFixed(1) : String(Math.round(hours)));
