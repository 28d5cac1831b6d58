import { findBar, listHosts } from './guard';

const HOSTS = listHosts('loom.example, Shop.example');
const ask = (method: string, path: string, headers: Record<string, string>) =>
  findBar({ method, path, headers: new Headers({ host: '127.0.0.1:4640', ...headers }) }, HOSTS)?.status ?? null;

test.each([
  [
    'a page of ours',
    'POST',
    '/api/jobs',
    { origin: 'http://127.0.0.1:4640', 'sec-fetch-site': 'same-origin', 'content-type': 'application/json' },
    null,
  ],
  ['no browser', 'POST', '/api/jobs', { 'content-type': 'application/json' }, null],
  ['an address typed', 'GET', '/api/shop', { 'sec-fetch-site': 'none' }, null],
  ['a link from elsewhere to a page', 'GET', '/jobs/1', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, null],
  [
    'a named host behind a proxy',
    'POST',
    '/api/jobs',
    { host: 'loom.example', origin: 'https://loom.example', 'content-type': 'application/json' },
    null,
  ],
  ['a named host in capitals', 'GET', '/', { host: 'SHOP.example:8443' }, null],
  ['IPv6', 'GET', '/', { host: '[::1]:4640' }, null],
  ['a photo', 'POST', '/api/jobs/1/photos', { 'content-type': 'image/jpeg' }, null],
  ['a name that somebody points here', 'GET', '/', { host: 'rebound.example:4640' }, 421],
  ['a name that ends as ours does', 'GET', '/', { host: 'evil-loom.example' }, 421],
  ['another page that writes', 'POST', '/api/jobs', { origin: 'https://elsewhere.example', 'content-type': 'application/json' }, 403],
  ['another port of this machine', 'POST', '/api/jobs', { origin: 'http://127.0.0.1:9999', 'content-type': 'application/json' }, 403],
  ['another page, told by its browser', 'DELETE', '/api/photos/1', { 'sec-fetch-site': 'cross-site' }, 403],
  ['a neighbour', 'POST', '/api/jobs', { 'sec-fetch-site': 'same-site' }, 403],
  ['another page that has work done', 'GET', '/api/jobs/1/sheets', { 'sec-fetch-site': 'cross-site' }, 403],
  ['a page in a sandbox', 'POST', '/api/jobs', { origin: 'null' }, 403],
  ['a form', 'POST', '/api/jobs', { 'content-type': 'application/x-www-form-urlencoded' }, 415],
  ['JSON dressed as text', 'POST', '/api/jobs', { 'content-type': 'text/plain;charset=utf-8' }, 415],
  ['bytes that are no text', 'GET', '/api/jobs/%ff', {}, 400],
  ['half of a surrogate pair', 'GET', '/api/jobs/%ED%A0%80', {}, 400],
  ['a NUL', 'GET', '/api/jobs/%00', {}, 400],
  ['a server action from elsewhere', 'POST', '/', { origin: 'https://elsewhere.example' }, 403],
])('%s', (_, method, path, headers, status) => {
  expect(ask(method, path, headers)).toBe(status);
});
