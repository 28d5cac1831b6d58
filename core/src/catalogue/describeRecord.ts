import {
  findCavitySize,
  findDueDay,
  findTool,
  isShrink,
  isTape,
  isWrap,
  listCavities,
  type Board,
  type Boot,
  type BoughtTable,
  type Buying,
  type Clip,
  type Conductor,
  type Contact,
  type CoveringItem,
  type Mode,
  type Printer,
  type Resin,
  type Ring,
  type Shop,
  type ShopRecord,
  type ShopStandard,
  type ShopTable,
  type SourceItem,
  type Tool,
  type Transition,
  type Zone,
} from '../model';
import { toCount } from '../units';
import { listCavityContacts } from './cavityParts';

/** What a record works with in this shop, in a line; empty where it stands by itself. */
export function describeRecord(shop: Shop, table: ShopTable, { id, value }: ShopRecord): string {
  switch (table) {
    case 'rings':
      return describeRing(shop, value as Ring);
    case 'contacts':
    case 'barrels': {
      const { minAreaMm2, maxAreaMm2 } = value as Contact;
      return `takes ${listSizes(shop, ({ areaMm2 }) => minAreaMm2 <= areaMm2 && areaMm2 <= maxAreaMm2)}`;
    }
    case 'seals':
    case 'grommets': {
      const { minOdMm, maxOdMm } = value as { minOdMm: number; maxOdMm: number };
      return `closes on ${listSizes(shop, ({ odMm }) => minOdMm <= odMm && odMm <= maxOdMm)}`;
    }
    case 'coverings':
      return describeCovering(value as CoveringItem);
    case 'boots': {
      const { bodySuppliedMm, bodyRecoveredMm, leadSuppliedMm, leadRecoveredMm } = value as Boot;
      const fitting = Object.values(shop.families).filter(
        ({ adapterMm }) => adapterMm !== null && 1.1 * adapterMm <= bodySuppliedMm && bodyRecoveredMm <= 0.9 * adapterMm,
      );
      return `${bodySuppliedMm}/${bodyRecoveredMm} mm on ${toCount(fitting.length, 'housing')}, ${leadSuppliedMm}/${leadRecoveredMm} mm on the leg`;
    }
    case 'transitions':
      return toTransitionWords(value as Transition);
    case 'clips': {
      const { base, leastMm, mostMm, limitC } = value as Clip;
      return `${base}, holds ${leastMm} to ${mostMm} mm, up to ${limitC} °C`;
    }
    case 'resins': {
      const { partA, partB, cureH, limitC } = value as Resin;
      return `${partA} to ${partB} by mass, cures in ${cureH} h at 23 °C, up to ${limitC} °C`;
    }
    case 'families':
      return describeFamily(shop, id);
    case 'devices': {
      const { pins, offers, familyId } = shop.devices[id]!;
      const family = familyId === null ? null : shop.families[familyId];
      return `${toCount(Object.keys(pins).length, 'pin', 'pins')}, ${Object.keys(offers).length} offered; ${family ? family.name : 'studs or tails'}`;
    }
    case 'wires': {
      const { areaMm2 } = value as Conductor;
      const fitting = shop.contacts.filter((one) => one.minAreaMm2 <= areaMm2 && areaMm2 <= one.maxAreaMm2).length;
      return toCount(fitting, 'contact takes it', 'contacts take it');
    }
    case 'tools': {
      const tool = value as Tool;
      const parts = [...shop.contacts, ...shop.rings, ...shop.barrels].filter((one) => findTool(shop.tools, one.tool)?.id === tool.id);
      const due = findDueDay(tool);
      const words = tool.everyDays === null ? 'no calibration' : due === null ? 'never calibrated' : `due again on ${due}`;
      return `works ${toCount(parts.length, 'part', 'parts')}; ${words}`;
    }
    case 'boards': {
      const { widthMm, heightMm, edgeMm } = value as Board;
      return `${widthMm - 2 * edgeMm} × ${heightMm - 2 * edgeMm} mm to lay on`;
    }
    case 'printers': {
      const { usableWidthMm, usableHeightMm, overlapMm } = value as Printer;
      return `tiles of ${usableWidthMm} × ${usableHeightMm} mm that share ${overlapMm}`;
    }
    case 'standards': {
      const { cutIncrementMm, reterminations, heatMarginK } = value as ShopStandard;
      return `cut to ${cutIncrementMm} mm, ${toCount(reterminations, 'new termination', 'new terminations')} in hand, ${heatMarginK} K kept from the limit`;
    }
    case 'buying': {
      const { price, packOf } = value as Buying;
      const bought = id.slice(0, id.indexOf('/')) as BoughtTable;
      const unit = BY_LENGTH.includes(bought) ? ' m' : '';
      const each = price === null ? 'no price' : `${price.toFixed(2)}${shop.currency === null ? '' : ` ${shop.currency}`}${unit && '/m'}`;
      return `${PART_WORDS[bought]}, ${each}${packOf === null ? '' : `, ${packOf}${unit} in a pack`}`;
    }
    default:
      return describeStart(table, value);
  }
}

/** Of what new jobs begin with. */
function describeStart(table: ShopTable, value: unknown): string {
  switch (table) {
    case 'zones': {
      const { ambientC, wet, abrasion, flexing, reopen, handled } = value as Zone;
      const traits = { wet, wears: abrasion, moves: flexing, 'opened later': reopen, handled };
      return [`${ambientC} °C`, ...Object.entries(traits).flatMap(([words, is]) => (is ? [words] : []))].join(', ');
    }
    case 'modes':
      return `engine ${(value as Mode).engine}`;
    case 'sources': {
      const { volts, milliohm, chassisMilliohm } = value as SourceItem;
      return `${volts} V, ${milliohm} mΩ; ${chassisMilliohm === null ? 'every return by wire' : `chassis ${chassisMilliohm} mΩ`}`;
    }
    default:
      return '';
  }
}

function describeFamily(shop: Shop, id: string): string {
  const family = shop.families[id]!;
  const sizes = new Map<string, string>();
  for (const cavity of listCavities(family)) {
    const size = findCavitySize(family, cavity);
    if (!sizes.has(size)) sizes.set(size, cavity);
  }
  const fitting = [...sizes.values()].reduce((sum, cavity) => sum + listCavityContacts(shop, family, cavity).length, 0);
  const used = Object.values(shop.devices).filter(({ familyId }) => familyId === id).length;
  return `${toCount(listCavities(family).length, 'way', 'ways')}, size ${[...sizes.keys()].join(' and ')}; ${toCount(fitting, 'contact fits', 'contacts fit')}; on ${toCount(used, 'template', 'templates')}`;
}

function describeCovering(item: CoveringItem): string {
  if (item.kind === 'braid') return `goes over ${item.relaxedBoreMm} to ${item.expandedBoreMm} mm`;
  if (isShrink(item)) return `passes ${item.suppliedBoreMm} mm, grips from ${item.recoveredBoreMm} mm up`;
  if (isTape(item)) return `${item.widthMm} mm wide, ${Math.round(item.overlap * 100)} % overlap, from ${item.leastOdMm} mm up`;
  if (isWrap(item)) return `closes on ${item.leastOdMm} to ${item.mostOdMm} mm`;
  return `bore ${item.boreMm} mm, for ${item.leastOdMm} to ${(item.boreMm * item.fillMost).toFixed(1)} mm`;
}

function describeRing(shop: Shop, { minAreaMm2, maxAreaMm2, studMm, tongueMm, insulated }: Ring): string {
  const on = studMm === null ? `tongue ${tongueMm ?? '?'}${insulated ? '' : ', to be sleeved'}` : `M${studMm}`;
  return `${on}, takes ${listSizes(shop, ({ areaMm2 }) => minAreaMm2 <= areaMm2 && areaMm2 <= maxAreaMm2)}`;
}

/** bought by the metre, as listParts counts them; the rest by the piece */
const BY_LENGTH: readonly BoughtTable[] = ['wires', 'cables', 'coverings'];

const PART_WORDS: Readonly<Record<BoughtTable, string>> = {
  ...{ families: 'housing', devices: 'device', wires: 'wire', cables: 'cable', contacts: 'contact', seals: 'seal' },
  ...{ plugs: 'cavity plug', rings: 'ring', barrels: 'splice barrel', coverings: 'covering', labels: 'marker sleeve' },
  ...{ boots: 'boot', transitions: 'transition', clips: 'clip', resins: 'gram of resin' },
};

/** "ETFE 26 to 20, thin-wall 0.35 to 0.5"; "no wire of this shop". */
function listSizes(shop: Shop, fits: (wire: Conductor) => boolean): string {
  const ranges = Object.values(shop.wires).flatMap((sizes) => {
    const fitting = sizes.filter(fits);
    if (fitting.length === 0) return [];
    const [first, last] = [fitting[0]!.size, fitting.at(-1)!.size];
    const words = sizes[0]!.insulation;
    return [first === last ? `${words} ${first}` : `${words} ${first} to ${last}`];
  });
  return ranges.length > 0 ? ranges.join(', ') : 'no wire of this shop';
}

function toTransitionWords({ legs, onwardSuppliedMm, onwardRecoveredMm, ...one }: Transition): string {
  const onward = onwardSuppliedMm === null ? '' : `, straight on ${onwardSuppliedMm}/${onwardRecoveredMm} mm`;
  return `trunk ${one.trunkSuppliedMm}/${one.trunkRecoveredMm} mm, ${legs} legs ${one.legSuppliedMm}/${one.legRecoveredMm} mm${onward}`;
}
