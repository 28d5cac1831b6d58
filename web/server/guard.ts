/** Why a request is not let in. */
export interface Barred {
  status: number;
  message: string;
}

/** What of a request says where it comes from and where it thinks it goes. */
export interface Asked {
  method: string;
  /** of the address, beginning with / */
  path: string;
  headers: Pick<Headers, 'get'>;
}

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];
/** what a form or a script of another page can send without the browser asking first (Fetch standard, simple requests) */
const SIMPLE = /^(text\/plain|application\/x-www-form-urlencoded|multipart\/form-data)/i;
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Names that this installation goes by: loopback, and what WATTOGRAPH_HOSTS lists. */
export function listHosts(named: string | undefined): Set<string> {
  const own = (named ?? '').split(',').map((name) => name.trim().toLowerCase());
  return new Set([...LOOPBACK, ...own.filter((name) => name !== '')]);
}

/** The name in a Host header, without its port. */
const toName = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

/**
 * Keep out what other pages and other names send. A page elsewhere must not write here or have work done here, and a name that somebody else
 * points at this machine must not read here. Who is no browser sends no Origin and no Sec-Fetch-Site, and is let in.
 */
export function findBar({ method, path, headers }: Asked, hosts: ReadonlySet<string>): Barred | null {
  const host = headers.get('host') ?? '';
  if (!hosts.has(toName(host)))
    return {
      status: 421,
      message: `expected one of the names that this installation goes by (WATTOGRAPH_HOSTS), got ${JSON.stringify(host.slice(0, 80))}`,
    };
  if (!isDecodable(path)) return { status: 400, message: 'expected an address in UTF-8, got other bytes' };
  const isApi = path.startsWith('/api/');
  const isSafe = SAFE.has(method);
  const site = headers.get('sec-fetch-site');
  // a link from elsewhere may open a page; it may not ask for data or work
  if ((isApi || !isSafe) && site !== null && site !== 'same-origin' && site !== 'none')
    return {
      status: 403,
      message: `expected a request of a page of this installation, got one from ${site === 'same-site' ? 'a neighbour' : 'elsewhere'}`,
    };
  const origin = headers.get('origin');
  if (!isSafe && origin !== null && toOriginHost(origin) !== host.toLowerCase())
    return { status: 403, message: 'expected a request of a page of this installation, got one of another origin' };
  const type = headers.get('content-type');
  if (!isSafe && type !== null && SIMPLE.test(type))
    return { status: 415, message: `expected JSON or a picture, got ${type.split(';')[0]!.slice(0, 60)}` };
  return null;
}

/** What an answer with data is sent with: it is shown as it is, runs nothing and is framed by nobody. */
export const DATA_HEADERS = {
  'content-security-policy':
    "default-src 'none'; style-src 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
} as const;

let known: ReadonlySet<string> | null = null;

/** The answer to a request for data or work that is not let in; null: it is. */
export function barData({ method, url, headers }: Pick<Request, 'method' | 'url' | 'headers'>): Response | null {
  known ??= listHosts(process.env.WATTOGRAPH_HOSTS);
  const { pathname } = new URL(url);
  // under a path of its own behind a proxy, too
  const barred = findBar({ method, path: pathname.slice(Math.max(0, pathname.indexOf('/api/'))), headers }, known);
  return barred && toBarred(barred);
}

export const toBarred = ({ status, message }: Barred): Response =>
  Response.json({ problems: [{ path: '', message }] }, { status, headers: { ...DATA_HEADERS, 'cache-control': 'no-store' } });

function isDecodable(path: string): boolean {
  try {
    return !decodeURIComponent(path).includes('\0');
  } catch {
    return false;
  }
}

function toOriginHost(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
