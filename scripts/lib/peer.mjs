// Loaded into the application: says to every request which address it comes from, in a header that nobody else can set.
import { subscribe } from 'node:diagnostics_channel';

const HEADER = 'x-peer';
/** proxies before the application that are its own: each adds the address that it was asked from to X-Forwarded-For */
const proxies = Number(process.env.WATTOGRAPH_PROXIES ?? 0);

subscribe('http.server.request.start', ({ request }) => {
  const passed = proxies > 0 ? String(request.headers['x-forwarded-for'] ?? '').split(',') : [];
  request.headers[HEADER] = passed.at(-proxies)?.trim() || request.socket.remoteAddress || '';
});
