import { toUrl } from './base';

/** Let this device open the station again with no network. Browsers without service workers go on as they are. */
export function registerServiceWorker(): void {
  if (!('serviceWorker' in navigator)) return;
  navigator.serviceWorker.register(toUrl('/serwist/sw.js'), { scope: toUrl('/') }).catch(() => {
    // refused by the browser (a private window, no secure origin): the station then needs a network
  });
}
