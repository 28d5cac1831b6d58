import type { Catalogue, ShopStandard } from '../../catalogue';
import { isOffered, isShrink, type Boot, type Shrink, type Surroundings, type Transition } from '../../model';
import { GRIPS, measureShrunkOutside, PASSES } from '../cover/measureCovering';
import { buildUp, isGripping, type BuiltPiece } from './buildUp';
import type { DressPiece } from './dressTypes';

/** What finishes an end or a breakout has to stand. */
export interface DressNeeds {
  /** lined with adhesive, for it is wet and need not open */
  isLined: boolean;
  ambientC: number;
}

/** What several runs that meet ask of what goes over them: the worst of each. */
export function toDressNeeds(zones: readonly (Surroundings | null)[]): DressNeeds & { mustOpen: boolean } {
  const known = zones.filter((zone) => zone !== null);
  const mustOpen = known.some(({ reopen }) => reopen);
  return {
    mustOpen,
    isLined: !mustOpen && known.some(({ wet }) => wet),
    ambientC: Math.max(-273, ...known.map(({ ambientC }) => ambientC ?? -273)),
  };
}

/** Sleeves that stand what is asked for, narrowest first. */
export const listSleeves = (catalogue: Catalogue, { isLined, ambientC }: DressNeeds): Shrink[] =>
  catalogue.coverings
    .filter(isShrink)
    .filter(
      ({ id, kind, limitC }) =>
        kind !== 'clear-shrink' && (kind === 'adhesive-shrink') === isLined && limitC >= ambientC && isOffered(catalogue, 'coverings', id),
    )
    .sort((a, b) => a.suppliedBoreMm - b.suppliedBoreMm);

const isFit = ({ lined, limitC }: Pick<Boot, 'lined' | 'limitC'>, { isLined, ambientC }: DressNeeds) =>
  lined === isLined && limitC >= ambientC;

/** Pieces of a build-up where they lie: the outermost as long as what grips it and a step more, each beneath it a step longer. */
export function toBuildUpPieces(
  built: readonly BuiltPiece[],
  gripMm: number,
  from: (lengthMm: number) => number,
  { buildUpStepMm }: ShopStandard,
): DressPiece[] {
  return built.map(({ sleeve, underMm, overMm }, at) => {
    const lengthMm = gripMm + (built.length - at) * buildUpStepMm;
    return toSleevePiece('build-up', sleeve, { fromMm: from(lengthMm), toMm: from(lengthMm) + lengthMm, underMm, overMm });
  });
}

/** A sleeve that lies from here to there; what is cut is longer by what it shortens. */
export function toSleevePiece(
  role: DressPiece['role'],
  sleeve: Shrink,
  lies: Pick<DressPiece, 'fromMm' | 'toMm' | 'underMm' | 'overMm'>,
): DressPiece {
  const cutMm = Math.ceil((lies.toMm - lies.fromMm) / (1 - sleeve.longitudinalChange) - 1e-6);
  return {
    ...{ role, table: 'coverings', itemId: sleeve.id, itemName: sleeve.name, cutMm, ...lies },
    ...{ isLined: sleeve.kind === 'adhesive-shrink', massG: (sleeve.massGPerM * cutMm) / 1000 },
  };
}

/** What closes from the rear of a housing onto the leg, from the wire outwards; null: nothing of the shop does. */
export function chooseEndPieces(
  catalogue: Catalogue,
  standard: ShopStandard,
  needs: DressNeeds,
  { bodyMm, leadMm, pinnedId }: { bodyMm: number; leadMm: number; pinnedId: string | null },
): DressPiece[] | null {
  const sleeves = listSleeves(catalogue, needs);
  const grip = standard.bootOverlapMm;
  const boots = catalogue.boots.filter((boot) =>
    pinnedId === null ? isFit(boot, needs) && isOffered(catalogue, 'boots', boot.id) : boot.id === pinnedId,
  );
  const booted = boots
    .filter((boot) => isGripping(boot.bodySuppliedMm, boot.bodyRecoveredMm, bodyMm) && boot.leadSuppliedMm >= PASSES * leadMm)
    .flatMap((boot) => {
      const built = buildUp(sleeves, leadMm, boot.leadRecoveredMm / GRIPS, boot.leadSuppliedMm / PASSES);
      return built ? [{ boot, built }] : [];
    })
    .sort((a, b) => a.built.length - b.built.length || a.boot.massG - b.boot.massG || (a.boot.id < b.boot.id ? -1 : 1))[0];
  if (booted) {
    const { boot, built } = booted;
    const toMm = boot.lengthMm - grip;
    const underMm = built.at(-1)?.overMm ?? leadMm;
    return [
      ...toBuildUpPieces(built, grip, (lengthMm) => toMm - grip / 2 - lengthMm / 2, standard),
      {
        ...{ role: 'boot', table: 'boots', itemId: boot.id, itemName: boot.name, cutMm: boot.lengthMm, fromMm: -grip, toMm, underMm },
        ...{ overMm: underMm + 2 * boot.wallMm, isLined: boot.lined, massG: boot.massG },
      },
    ];
  }
  if (pinnedId !== null && boots.length > 0) return null;
  return chooseStep(sleeves, standard, bodyMm, leadMm, pinnedId);
}

/** One sleeve from the body onto the leg, which is built up where it is too thin for it. */
function chooseStep(
  sleeves: readonly Shrink[],
  standard: ShopStandard,
  bodyMm: number,
  leadMm: number,
  pinnedId: string | null,
): DressPiece[] | null {
  const grip = standard.bootOverlapMm;
  const [wide, thin] = [Math.max(bodyMm, leadMm), Math.min(bodyMm, leadMm)];
  const stepped = sleeves
    .filter(
      ({ id, suppliedBoreMm, recoveredBoreMm }) =>
        (pinnedId === null || id === pinnedId) && isGripping(suppliedBoreMm, recoveredBoreMm, wide),
    )
    .flatMap((sleeve) => {
      const built =
        bodyMm < leadMm
          ? sleeve.recoveredBoreMm <= GRIPS * thin
            ? []
            : null
          : buildUp(sleeves, leadMm, sleeve.recoveredBoreMm / GRIPS, wide);
      return built ? [{ sleeve, built }] : [];
    })
    .sort((a, b) => a.built.length - b.built.length || a.sleeve.suppliedBoreMm - b.sleeve.suppliedBoreMm)[0];
  if (!stepped) return null;
  const { sleeve, built } = stepped;
  const underMm = built.at(-1)?.overMm ?? leadMm;
  return [
    ...toBuildUpPieces(built, grip, () => 0, standard),
    toSleevePiece('step', sleeve, { fromMm: -grip, toMm: grip, underMm, overMm: measureShrunkOutside(sleeve, underMm) }),
  ];
}

interface BreakoutSizes {
  trunkMm: number;
  legsMm: readonly number[];
  /** index of the leg that goes straight on; -1: none does */
  onward: number;
  togetherMm: number;
  pinnedId: string | null;
}

/** What closes a breakout, from the wire outwards; null: nothing of the shop does. */
export function chooseBreakoutPieces(
  catalogue: Catalogue,
  standard: ShopStandard,
  needs: DressNeeds,
  { trunkMm, legsMm, onward, togetherMm, pinnedId }: BreakoutSizes,
): DressPiece[] | null {
  const moulded = catalogue.transitions
    .filter((one: Transition) =>
      pinnedId === null ? isFit(one, needs) && isOffered(catalogue, 'transitions', one.id) : one.id === pinnedId,
    )
    .filter(
      (one) =>
        one.legs === legsMm.length &&
        isGripping(one.trunkSuppliedMm, one.trunkRecoveredMm, trunkMm) &&
        (one.onwardSuppliedMm === null || onward >= 0) &&
        legsMm.every((legMm, leg) =>
          leg === onward && one.onwardSuppliedMm !== null && one.onwardRecoveredMm !== null
            ? isGripping(one.onwardSuppliedMm, one.onwardRecoveredMm, legMm)
            : isGripping(one.legSuppliedMm, one.legRecoveredMm, legMm),
        ),
    )
    .sort((a, b) => a.massG - b.massG || (a.id < b.id ? -1 : 1))[0];
  if (moulded) {
    const half = moulded.lengthMm / 2;
    return [
      {
        ...{ role: 'transition', table: 'transitions', itemId: moulded.id, itemName: moulded.name, cutMm: moulded.lengthMm },
        ...{
          fromMm: -half,
          toMm: half,
          underMm: trunkMm,
          overMm: trunkMm + 2 * moulded.wallMm,
          isLined: moulded.lined,
          massG: moulded.massG,
        },
      },
    ];
  }
  if (pinnedId !== null && catalogue.transitions.some(({ id }) => id === pinnedId)) return null;
  const grip = standard.bootOverlapMm;
  const [wide, thin] = [Math.max(trunkMm, togetherMm), Math.min(trunkMm, togetherMm)];
  const sleeves = listSleeves(catalogue, needs);
  const over = sleeves
    .filter(
      ({ id, suppliedBoreMm, recoveredBoreMm }) =>
        (pinnedId === null || id === pinnedId) && isGripping(suppliedBoreMm, recoveredBoreMm, wide),
    )
    .flatMap((sleeve) => {
      const built = buildUp(sleeves, thin, sleeve.recoveredBoreMm / GRIPS, sleeve.suppliedBoreMm / PASSES);
      return built ? [{ sleeve, built }] : [];
    })
    .sort((a, b) => a.built.length - b.built.length || a.sleeve.suppliedBoreMm - b.sleeve.suppliedBoreMm)[0];
  if (!over) return null;
  const underMm = over.built.at(-1)?.overMm ?? thin;
  // the thin side is built up, as far as the joint: the trunk lies towards the datum
  const from = (lengthMm: number) => (trunkMm <= togetherMm ? -lengthMm : 0);
  return [
    ...toBuildUpPieces(over.built, grip, from, standard),
    toSleevePiece('over-sleeve', over.sleeve, { fromMm: -grip, toMm: grip, underMm, overMm: measureShrunkOutside(over.sleeve, underMm) }),
  ];
}
