import { NextResponse, type NextRequest } from 'next/server';
import { findBar, listHosts, toBarred } from './server/guard';

const hosts = listHosts(process.env.WATTOGRAPH_HOSTS);

/**
 * Pages: who is let in; then content security: scripts by nonce only, nothing from anywhere else. Styles may be inline, for the interface library
 * sets them. What asks for data is let in by its route (barData): coming through here would cost a third of a tick.
 */
export function proxy(request: NextRequest): Response {
  const barred = findBar({ method: request.method, path: request.nextUrl.pathname, headers: request.headers }, hosts);
  if (barred) return toBarred(barred);
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  // where who is not signed in comes back to
  headers.set('x-path', request.nextUrl.pathname + request.nextUrl.search);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('x-frame-options', 'DENY');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
  response.headers.set('cross-origin-opener-policy', 'same-origin');
  return response;
}

// an address with % in it may be one that no route can read: those come through here whatever they ask for
export const config = { matcher: ['/((?!_next/static|_next/image|api/[^%]*$).*)'] };
