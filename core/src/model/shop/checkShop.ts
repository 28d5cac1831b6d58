import { isDay } from '../../units';
import { checkShape } from '../checkShape';
import { checkFamily, toCavityWords } from './checkFamily';
import { isShrink, isTube, isWrap } from './covering';
import { listCavities } from './family';
import { listTemplateProblems } from '../vehicle/listTemplateProblems';
import type { Checked, Problem } from '../problem';
import { BOUGHT_TABLES, RETIRABLE_TABLES } from './buying';
import { listRecords } from './compareShops';
import { toPresentShop } from './migrations';
import { SHOP_FORMAT, SHOP_FORMAT_VERSION, ShopSchema, type Shop } from './shop';
import { BY_WIRE } from './standard';
import type { Conductor } from './wire';

/** The one gate of a shop at every border: format, shape, and what the shape cannot say. */
export function checkShop(value: unknown): Checked<Shop> {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return { ok: false, problems: [{ path: '', message: `expected a shop (a JSON object), got ${JSON.stringify(value)?.slice(0, 40)}` }] };
  const { format, formatVersion } = value as { format?: unknown; formatVersion?: unknown };
  if (format !== SHOP_FORMAT)
    return { ok: false, problems: [{ path: '/format', message: `expected "${SHOP_FORMAT}", got ${JSON.stringify(format) ?? 'nothing'}` }] };
  if (typeof formatVersion === 'number' && formatVersion > SHOP_FORMAT_VERSION)
    return {
      ok: false,
      problems: [
        {
          path: '/formatVersion',
          message: `expected at most ${SHOP_FORMAT_VERSION}, got ${formatVersion}: the file is of a newer Wattograph`,
        },
      ],
    };
  const shaped = checkShape<Shop>(ShopSchema, toPresentShop(value as Record<string, unknown>));
  if (!shaped.ok) return shaped;
  const problems = listShopProblems(shaped.value);
  return problems.length > 0 ? { ok: false, problems: problems.slice(0, MOST) } : shaped;
}

const MOST = 20;

function listShopProblems(shop: Shop): Problem[] {
  return [
    ...listDoubled('/people', shop.people),
    ...Object.entries(shop.wires).flatMap(([table, sizes]) => listWireProblems(table, sizes)),
    ...listKindProblems(shop),
    ...(
      [
        'contacts',
        'seals',
        'barrels',
        'rings',
        'coverings',
        'boots',
        'transitions',
        'clips',
        'resins',
        'cables',
        'labels',
        'tools',
        'boards',
        'printers',
        'zones',
        'modes',
        'sources',
      ] as const
    ).flatMap((kind) =>
      listDoubled(
        `/${kind}`,
        shop[kind].map(({ id }) => id),
        '/id',
      ),
    ),
    ...Object.entries(shop.families).flatMap(([id, family]) => checkFamily(family, `/families/${id}`)),
    ...listWindowProblems(shop),
    ...listReferenceProblems(shop),
    ...listBuyingProblems(shop),
    ...listToolProblems(shop),
    ...listHeightProblems(shop),
  ];
}

/** What stands twice where each may stand once. */
function listDoubled(path: string, names: readonly string[], field = ''): Problem[] {
  const first = new Map<string, number>();
  return names.flatMap((name, at) => {
    const before = first.get(name);
    if (before === undefined) {
      first.set(name, at);
      return [];
    }
    return [
      { path: `${path}/${at}${field}`, message: `expected a name of its own, got ${JSON.stringify(name)}, which is that of ${before}` },
    ];
  });
}

/** Every house style says of each kind of wire what it asks of one, and of no other. */
function listKindProblems({ wires, standards }: Shop): Problem[] {
  const kinds = Object.keys(wires);
  const list = (path: string, of: Readonly<Record<string, unknown>>) => [
    ...kinds.flatMap((kind) =>
      Object.hasOwn(of, kind) ? [] : [{ path: `${path}/${kind}`, message: `expected one for the wire ${kind}, got none` }],
    ),
    ...Object.keys(of).flatMap((kind) =>
      Object.hasOwn(wires, kind)
        ? []
        : [{ path: `${path}/${kind}`, message: `expected a kind of wire (${kinds.join(', ')}), got "${kind}"` }],
    ),
  ];
  return Object.entries(standards).flatMap(([id, standard]) =>
    BY_WIRE.flatMap((field) => list(`/standards/${id}/${field}`, standard[field])),
  );
}

function listWireProblems(table: string, sizes: readonly Conductor[]): Problem[] {
  const path = `/wires/${table}`;
  return [
    ...listDoubled(
      path,
      sizes.map(({ size }) => size),
      '/size',
    ),
    ...sizes.flatMap((one, at) => {
      const before = sizes[at - 1];
      if (one.table !== table) return [{ path: `${path}/${at}/table`, message: `expected "${table}", got "${one.table}"` }];
      if (before && one.insulation !== before.insulation)
        return [
          { path: `${path}/${at}/insulation`, message: `expected "${before.insulation}" as the size before it, got "${one.insulation}"` },
        ];
      if (before && one.areaMm2 <= before.areaMm2)
        return [
          {
            path: `${path}/${at}/areaMm2`,
            message: `expected more than the ${before.areaMm2} mm² of size ${before.size} before it, got ${one.areaMm2}`,
          },
        ];
      return [];
    }),
  ];
}

/** A terminal goes over a stud or on a tongue; a blade that is bare says how long and wide it is, for the sleeve over it. */
function listBladeProblems({ studMm, tongueMm, insulated, lengthMm, widthMm }: Shop['rings'][number], path: string): Problem[] {
  if ((studMm === null) === (tongueMm === null)) {
    const got = studMm === null ? 'neither' : 'both';
    return [{ path: `${path}/tongueMm`, message: `expected a stud that it goes over or a tongue that it is pushed on, got ${got}` }];
  }
  if (tongueMm === null || insulated) return [];
  return [
    ...(lengthMm === null ? [{ path: `${path}/lengthMm`, message: 'expected its length, for the sleeve over all of it, got null' }] : []),
    ...(widthMm === null ? [{ path: `${path}/widthMm`, message: 'expected its width, for the sleeve over all of it, got null' }] : []),
  ];
}

/** Windows that nothing fits into. */
function listWindowProblems(shop: Shop): Problem[] {
  const check = (path: string, low: number, high: number, words: string) =>
    low <= high ? [] : [{ path, message: `expected at least the ${words} ${low}, got ${high}: nothing would fit` }];
  return [
    ...shop.contacts.flatMap((one, at) => check(`/contacts/${at}/maxAreaMm2`, one.minAreaMm2, one.maxAreaMm2, 'least area')),
    ...shop.barrels.flatMap((one, at) => check(`/barrels/${at}/maxAreaMm2`, one.minAreaMm2, one.maxAreaMm2, 'least area')),
    ...shop.rings.flatMap((one, at) => [
      ...check(`/rings/${at}/maxAreaMm2`, one.minAreaMm2, one.maxAreaMm2, 'least area'),
      ...listBladeProblems(one, `/rings/${at}`),
    ]),
    ...shop.seals.flatMap((one, at) => check(`/seals/${at}/maxOdMm`, one.minOdMm, one.maxOdMm, 'least diameter')),
    ...Object.entries(shop.grommets).flatMap(([size, one]) =>
      check(`/grommets/${size}/maxOdMm`, one.minOdMm, one.maxOdMm, 'least diameter'),
    ),
    ...shop.labels.flatMap((one, at) => check(`/labels/${at}/suppliedBoreMm`, one.recoveredBoreMm, one.suppliedBoreMm, 'recovered bore')),
    ...shop.labels.flatMap((one, at) => check(`/labels/${at}/lengthMm`, one.printableMm, one.lengthMm, 'length that can be printed')),
    ...Object.entries(shop.standards).flatMap(([id, one]) =>
      check(`/standards/${id}/legendMm`, one.legendLeastMm, one.legendMm, 'lowest letters that are read'),
    ),
    ...shop.coverings.flatMap((one, at) => {
      const path = `/coverings/${at}`;
      if (one.kind === 'braid') return check(`${path}/expandedBoreMm`, one.relaxedBoreMm, one.expandedBoreMm, 'relaxed bore');
      if (isShrink(one)) return check(`${path}/suppliedBoreMm`, one.recoveredBoreMm, one.suppliedBoreMm, 'recovered bore');
      if (isWrap(one)) return check(`${path}/mostOdMm`, one.leastOdMm, one.mostOdMm, 'least diameter');
      if (isTube(one)) return check(`${path}/boreMm`, one.leastOdMm, one.boreMm * one.fillMost, 'least diameter');
      return [];
    }),
    ...shop.boots.flatMap((one, at) => [
      ...check(`/boots/${at}/bodySuppliedMm`, one.bodyRecoveredMm, one.bodySuppliedMm, 'recovered bore'),
      ...check(`/boots/${at}/leadSuppliedMm`, one.leadRecoveredMm, one.leadSuppliedMm, 'recovered bore'),
    ]),
    ...shop.clips.flatMap((one, at) => check(`/clips/${at}/mostMm`, one.leastMm, one.mostMm, 'thinnest bundle')),
    ...shop.transitions.flatMap((one, at) => [
      ...check(`/transitions/${at}/trunkSuppliedMm`, one.trunkRecoveredMm, one.trunkSuppliedMm, 'recovered bore'),
      ...check(`/transitions/${at}/legSuppliedMm`, one.legRecoveredMm, one.legSuppliedMm, 'recovered bore'),
      ...((one.onwardSuppliedMm === null) === (one.onwardRecoveredMm === null)
        ? check(`/transitions/${at}/onwardSuppliedMm`, one.onwardRecoveredMm ?? 0, one.onwardSuppliedMm ?? 0, 'recovered bore')
        : [{ path: `/transitions/${at}/onwardSuppliedMm`, message: 'expected both bores of the leg that goes on, or neither' }]),
    ]),
  ];
}

/** What a record names and the shop does not have. */
function listReferenceProblems(shop: Shop): Problem[] {
  const hasSize = (table: string, size: string) => shop.wires[table]?.some((one) => one.size === size) ?? false;
  const sizes = (table: string) =>
    shop.wires[table]?.map((one) => one.size).join(', ') ?? `the sizes of a kind of wire (${Object.keys(shop.wires).join(', ')})`;
  return [
    ...Object.entries(shop.families).flatMap(([id, { mateId }]) =>
      mateId === null || Object.hasOwn(shop.families, mateId)
        ? []
        : [{ path: `/families/${id}/mateId`, message: `expected a family of this shop or none, got "${mateId}"` }],
    ),
    ...Object.entries(shop.devices).flatMap(([id, { familyId }]) =>
      familyId === null || Object.hasOwn(shop.families, familyId)
        ? []
        : [{ path: `/devices/${id}/familyId`, message: `expected a family of this shop, got "${familyId}"` }],
    ),
    ...Object.entries(shop.devices).flatMap(([id, { familyId, pins, offers }]) => {
      const family = familyId === null ? undefined : shop.families[familyId];
      if (!family) return [];
      const cavities = new Set(listCavities(family));
      return [...Object.keys(pins), ...Object.keys(offers)]
        .filter((pin) => !cavities.has(pin))
        .map((pin) => ({
          path: `/devices/${id}/${Object.hasOwn(pins, pin) ? 'pins' : 'offers'}/${pin}`,
          message: `expected a cavity of ${family.name} (${toCavityWords(family)}), got "${pin}"`,
        }));
    }),
    ...Object.entries(shop.devices).flatMap(([id, { pins, offers, links }]) =>
      listTemplateProblems({ pins: Object.entries(pins), offers: Object.entries(offers), links: Object.entries(links) }).map(
        ({ path, message }) => ({ path: `/devices/${id}${path}`, message }),
      ),
    ),
    ...shop.cables.flatMap(({ table, size }, at) =>
      hasSize(table, size) ? [] : [{ path: `/cables/${at}/size`, message: `expected one of ${sizes(table)}, got "${size}"` }],
    ),
    ...Object.entries(shop.standards).flatMap(([id, standard]) => [
      ...(standard.id === id ? [] : [{ path: `/standards/${id}/id`, message: `expected "${id}", got "${standard.id}"` }]),
      ...Object.entries(standard.minimumSize).flatMap(([table, size]) =>
        hasSize(table, size) || !Object.hasOwn(shop.wires, table)
          ? []
          : [
              {
                path: `/standards/${id}/minimumSize/${table}`,
                message: `expected one of ${sizes(table)}, got "${size}"`,
              },
            ],
      ),
    ]),
  ];
}

/** What is bought is a part of this shop, and what is retired is of a table whose parts can be. */
function listBuyingProblems(shop: Shop): Problem[] {
  const ids = new Map<string, ReadonlySet<string>>(
    BOUGHT_TABLES.map((table) => [table, new Set(listRecords(shop, table).map(({ id }) => id))]),
  );
  return Object.entries(shop.buying).flatMap(([key, { retired }]) => {
    const table = key.slice(0, key.indexOf('/'));
    const id = key.slice(table.length + 1);
    const path = `/buying/${key.replace('/', '~1')}`;
    if (!ids.get(table)?.has(id)) return [{ path, message: `expected a part of this shop (${BOUGHT_TABLES.join(', ')}), got "${key}"` }];
    if (retired && !RETIRABLE_TABLES.some((one) => one === table))
      return [{ path: `${path}/retired`, message: `expected false: ${table} are taken out, not retired` }];
    return [];
  });
}

/** Crimp heights are of sizes that there are, each once. */
function listHeightProblems({ contacts, wires }: Shop): Problem[] {
  const sizes = new Set(Object.values(wires).flatMap((table) => table.map(({ size }) => size)));
  return contacts.flatMap(({ crimpHeights }, at) => {
    const named = crimpHeights.map((words) => words.slice(0, words.indexOf(' ')));
    return named.flatMap((size, place) => {
      const path = `/contacts/${at}/crimpHeights/${place}`;
      if (!sizes.has(size)) return [{ path, message: `expected a size of a wire of the shop and mm, got "${crimpHeights[place]}"` }];
      if (named.indexOf(size) < place) return [{ path, message: `expected each size once, got ${size} twice` }];
      return [];
    });
  });
}

function listToolProblems({ tools }: Shop): Problem[] {
  return [
    ...listDoubled(
      '/tools',
      tools.map(({ name }) => name),
      '/name',
    ),
    ...tools.flatMap((tool, at) =>
      (['calibratedOn', 'servicedOn'] as const).flatMap((key) => {
        const day = tool[key];
        return day === null || isDay(day)
          ? []
          : [{ path: `/tools/${at}/${key}`, message: `expected a day as in 2026-11-25, got "${day}"` }];
      }),
    ),
  ];
}
