import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInlet } from 'wattograph-core/demo';

/** One request that no route may carry out. */
export interface Hostile {
  what: string;
  method: string;
  path: string;
  headers: Record<string, string>;
  body: string | Buffer | null;
}

export interface Route {
  /** as /api/jobs/[id]/edits */
  path: string;
  methods: string[];
}

const API = join(__dirname, '../web/app/api');

/** Every route of the application, with the methods that it answers, as its files say. */
export function listRoutes(): Route[] {
  return readdirSync(API, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('route.ts'))
    .map((file) => ({
      path: `/api/${file.replace(/\/?route\.ts$/, '')}`,
      methods: [
        ...readFileSync(join(API, file), 'utf8').matchAll(/^export (?:const|async function|function) (GET|POST|PUT|PATCH|DELETE)\b/gm),
      ].map(([, method]) => method!),
    }))
    .sort((a, b) => (a.path < b.path ? -1 : 1));
}

/** What exists, so that a hostile request gets as far as it can. */
export interface Target {
  jobId: string;
  photoId: string;
}

/** Bodies that would be taken, by route: hostile ones are made of these. A POST without an entry here fails the test that looks for it. */
const BODIES: Record<string, () => Record<string, unknown>> = {
  '/api/jobs': () => ({ id: randomUUID(), document: createInlet() }),
  '/api/jobs/[id]/edits': () => ({ id: randomUUID(), base: 0, label: 'x', patch: [{ op: 'replace', path: '/notes', value: 'x' }] }),
  '/api/jobs/[id]/history': () => ({ id: randomUUID(), direction: 'undo' }),
  '/api/jobs/[id]/releases': () => ({ id: randomUUID(), base: 0, note: '' }),
  '/api/jobs/[id]/releases/[number]/events': () => ({
    events: [
      {
        ...{ id: randomUUID(), loomId: 'inlet', stepId: 'lay', itemId: 'x', kind: 'tick', words: '' },
        happenedAt: '2026-11-24T08:00:00.000Z',
      },
    ],
  }),
  '/api/jobs/[id]/archived': () => ({ archived: true }),
  '/api/jobs/[id]/deleted': () => ({ deleted: true }),
  '/api/jobs/[id]/customer': () => ({ id: randomUUID(), item: 'nothing', answer: 'x' }),
  '/api/jobs/[id]/survey': () => ({
    entries: [
      {
        ...{ id: randomUUID(), loomId: 'inlet', author: 'A', at: '2026-11-24T08:00:00.000Z', kind: 'fitted' },
        ...{ segmentId: 't1', fittedMm: 71, seen: null, method: 'tape' },
      },
    ],
  }),
  '/api/accounts/sign-in': () => ({ username: 'nobody', password: 'no password of anybody' }),
  '/api/accounts/pin': () => ({ personId: 'nobody', pin: '0000' }),
  '/api/accounts/set-up': () => ({ code: 'AAAA-BBBB-CCCC', name: 'Nobody', username: 'nobody', password: 'long enough', pin: '0000' }),
  '/api/accounts/invites': () => ({ name: 'Nobody', role: 'crew', personId: null }),
  '/api/accounts/invites/accept': () => ({ code: 'AAAA-BBBB-CCCC', username: null, password: null, pin: '0000' }),
  '/api/accounts/device': () => ({ name: 'tablet' }),
  '/api/accounts/people/[person]': () => ({ role: 'crew' }),
  '/api/shop': () => ({ id: randomUUID(), base: 1, note: '', document: {} }),
  '/api/shop/preview': () => ({ document: {} }),
};
/** bodies that are no JSON */
const RAW = new Set(['/api/jobs/[id]/photos']);

export const listUnknown = (routes: readonly Route[]): string[] =>
  routes
    .filter(({ path, methods }) => methods.includes('POST') && !(path in BODIES) && !RAW.has(path) && path !== '/api/accounts/sign-out')
    .map(({ path }) => path);

/** Numbers in [0, 1) that a seed decides (mulberry32). */
function createRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let next = Math.imul(state ^ (state >>> 15), 1 | state);
    next = (next + Math.imul(next ^ (next >>> 7), 61 | next)) ^ next;
    return ((next ^ (next >>> 14)) >>> 0) / 4294967296;
  };
}

const BAD_IDS = ['abc', '%ff', '%00', '..%2f..%2fetc', '5ee12000', 'toString', '__proto__', "'%20or%201=1", 'x'.repeat(3000), '%ED%A0%80'];
const BAD_NUMBERS = ['abc', '0', '-1', '99999999999', '1e10', '1.5', 'NaN', '%00', '%EF%BC%91', '__proto__', '999999'];
const BAD_VALUES: unknown[] = [
  null,
  [],
  {},
  -1,
  1e10,
  1e308,
  0.5,
  true,
  'toString',
  '__proto__',
  '\u0000',
  '\udc00',
  'x'.repeat(100_000),
  [[[[]]]],
];
const NO_PICTURES: Buffer[] = [
  Buffer.alloc(0),
  Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><filter id="f"><feTurbulence numOctaves="9"/></filter><rect width="100%" height="100%" filter="url(#f)"/></svg>',
  ),
  Buffer.from('%PDF-1.7\n'),
  Buffer.from('GIF89a\u0001\u0000\u0001\u0000', 'latin1'),
  Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 74, 70, 73, 70]),
  // a PNG of 60,000 by 60,000 that holds nothing
  Buffer.from('89504e470d0a1a0a0000000d494844520000ea600000ea600806000000' + '00000000', 'hex'),
  Buffer.from('RIFF\u0010\u0000\u0000\u0000WEBPVP8 ', 'latin1'),
];

/** Requests over all routes, none of which may be carried out or break anything; the same for the same seed. */
export function createHostile(seed: number, routes: readonly Route[], { jobId, photoId }: Target): Hostile {
  const random = createRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const { path, methods } = pick(routes);
  const isOwn = random() < 0.75;
  const fill = (name: string) => {
    if (name === '[number]') return random() < 0.5 ? '1' : pick(BAD_NUMBERS);
    if (name === '[version]') return pick(BAD_NUMBERS);
    if (name === '[photo]') return pick([...BAD_IDS, randomUUID(), `${photoId}x`]);
    if (name === '[person]' || name === '[device]') return pick([...BAD_IDS, randomUUID()]);
    if (name === '[task]') return pick([...BAD_IDS, randomUUID()]);
    return isOwn ? jobId : pick([...BAD_IDS, randomUUID()]);
  };
  const place = path.replace(/\[\w+\]/g, fill);
  const query = (parts: [string, string][]) => (parts.length ? `?${parts.map(([name, value]) => `${name}=${value}`).join('&')}` : '');
  const badQuery = query(
    ['author', 'since', 'version', 'after', 'release', 'loom', 'paper', 'format', 'what', 'as', 'id', 'takenAt'].flatMap((name) =>
      random() < 0.3 ? [[name, pick([...BAD_NUMBERS, ...BAD_IDS, 'a3&a3=', '%F0%9F'])] as [string, string]] : [],
    ),
  );
  const json = { 'content-type': 'application/json' };
  const made = (what: string, method: string, more: Partial<Hostile> = {}): Hostile => ({
    what,
    method,
    path: place,
    headers: {},
    body: null,
    ...more,
  });

  if (random() < 0.12)
    return made('a method that it has not', pick(['PUT', 'PATCH', ...(methods.includes('DELETE') ? [] : ['DELETE'])]), {
      headers: json,
      body: '{}',
    });
  if (random() < 0.12)
    return made('another name of this machine', pick(methods), {
      headers: { ...json, host: 'rebound.example' },
      body: methods.includes('POST') ? '{}' : null,
    });
  const write = methods.find((method) => method !== 'GET');
  if (write === 'DELETE' || write === undefined || (methods.includes('GET') && random() < 0.3))
    return made('a query that says nothing', methods.includes('GET') ? 'GET' : write!, { path: place + badQuery });
  if (random() < 0.1)
    return made('a page elsewhere', write, {
      headers: { ...json, origin: 'https://elsewhere.example' },
      body: JSON.stringify(BODIES[path]?.() ?? {}),
    });
  if (random() < 0.1)
    return made('a form', write, {
      headers: { 'content-type': pick(['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x']) },
      body: JSON.stringify(BODIES[path]?.() ?? {}),
    });
  if (RAW.has(path)) {
    const about: [string, string][] = [
      ...([
        ['id', randomUUID()],
        ['loom', 'inlet'],
        ['node', 'bk1'],
        ['caption', 'x'],
        ['author', 'x'],
      ] as [string, string][]),
      ['takenAt', pick(['2026-11-24T08:00:00Z', '2026-11-24T23:59:60Z', '0000-00-00T00:00:00Z'])],
    ];
    return made('no picture', write, {
      path: place + (random() < 0.7 ? query(about) : badQuery),
      headers: { 'content-type': 'image/jpeg' },
      body: pick(NO_PICTURES),
    });
  }
  return made('a body that is not as asked', write, { headers: json, body: spoil(BODIES[path]!(), path, pick, random) });
}

/** A body that was as asked, made into one that is not. */
function spoil(body: Record<string, unknown>, path: string, pick: <T>(list: readonly T[]) => T, random: () => number): string | Buffer {
  const text = JSON.stringify(body);
  const kind = Math.floor(random() * 9);
  if (kind === 0) return text.slice(0, Math.floor(random() * (text.length - 1)));
  if (kind === 1) return pick(['', 'null', '[]', '7', '"x"', '{}', '{"__proto__":{"x":1}}', '\ufeff', 'undefined', '{"a":1e999}']);
  if (kind === 2) return '['.repeat(5000) + (random() < 0.5 ? ']'.repeat(5000) : '');
  if (kind === 3) return Buffer.from([0x7b, 0x22, 0xff, 0xfe, 0x22, 0x3a, 0x31, 0x7d]);
  if (kind === 4) return `[${'0,'.repeat(700_000)}0]`;
  if (kind === 5 && path.endsWith('/edits')) return JSON.stringify({ ...body, patch: spoilPatch(pick) });
  // a field that is something else, missing or too much
  const fields = Object.keys(body);
  const field = pick(fields);
  if (kind === 6) return JSON.stringify({ ...body, [pick(['more', 'constructor', 'toString'])]: pick(BAD_VALUES) });
  if (kind === 7) return JSON.stringify(Object.fromEntries(Object.entries(body).filter(([name]) => name !== field)));
  const list = body[field];
  if (Array.isArray(list) && list.length > 0 && random() < 0.7) {
    const one = list[0] as Record<string, unknown>;
    const inner = pick(Object.keys(one));
    const value =
      inner === 'value' || inner === 'seen'
        ? '\u0000'
        : pick(BAD_VALUES.filter((bad) => bad !== one[inner] && !(inner === 'words' && bad === 'toString')));
    return JSON.stringify({ ...body, [field]: [{ ...one, [inner]: isTaken(inner, value) ? '\u0000' : value }] });
  }
  const value =
    field === 'note' || field === 'label' || field === 'author' ? pick<unknown>(['\u0000', 7, null, '\ud83d', []]) : pick(BAD_VALUES);
  return JSON.stringify({ ...body, [field]: isTaken(field, value) ? '\u0000' : value });
}

/** May a field well have this value? Then the request would be a good one. */
const isTaken = (field: string, value: unknown): boolean =>
  ((field === 'archived' || field === 'deleted') && value === true) ||
  (typeof value === 'string' && NAMES.has(field)) ||
  (value === null && field === 'personId');
/** fields that hold what somebody chose */
const NAMES = new Set(['name', 'username', 'password', 'personId', 'code']);

const spoilPatch = (pick: <T>(list: readonly T[]) => T): unknown =>
  pick<unknown>([
    Array.from({ length: 24 }, () => ({ op: 'copy', from: '/looms', path: '/looms/x' })),
    [{ op: 'replace', path: '', value: {} }],
    [{ op: 'remove', path: '' }],
    [{ op: 'add', path: '/__proto__/x', value: 1 }],
    [{ op: 'add', path: '/constructor/prototype/x', value: 1 }],
    [{ op: 'move', from: '', path: '/notes' }],
    [{ op: 'move', from: '/looms', path: '/looms/inlet' }],
    [{ op: 'add', path: '/looms/toString', value: {} }],
    [{ op: 'add', path: '/looms/inlet/nodes/-', value: [] }],
    [{ op: 'replace', path: '/notes/~2', value: 'x' }],
    [{ op: 'replace', path: '/notes', value: '\u0000' }],
    [{ op: 'replace', path: '/name', value: 'x'.repeat(1_000_000) }],
    [{ op: 'test', path: '/notes', value: 'something else' }],
    [{ op: 'replace', path: '/looms/inlet/segments/t1/lengthMm', value: 1e308 }],
    [{ op: 'replace', path: 'looms', value: 1 }],
    Array.from({ length: 5001 }, () => ({ op: 'test', path: '/notes', value: '' })),
    Array.from({ length: 4000 }, (_, index) => ({ op: 'add', path: `/looms/l${index}`, value: {} })),
  ]);
