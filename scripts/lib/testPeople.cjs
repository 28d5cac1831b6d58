// Made-up people who are signed in already, for tests and measurements on databases of their own.
const { createHash, createHmac } = require('node:crypto');
const { createRequire } = require('node:module');
const { join } = require('node:path');

/** signs the cookies of applications that tests start */
const TEST_SECRET = 'a key that is used by tests on databases of their own';
const DEVICE = { id: 'de000000-0000-4000-8000-000000000001', token: 'device-of-the-tests' };
const PEOPLE = {
  imke: { name: 'Imke Dorsey', role: 'owner' },
  jun: { name: 'Jun Okafor', role: 'planner' },
  saoirse: { name: 'Saoirse Vell', role: 'crew' },
  tobin: { name: 'Tobin Ashgrove', role: 'crew' },
  wil: { name: 'Wil Tamsin', role: 'viewer' },
};
const tokenOf = (id) => `session-of-${id}`;

/** Put them into a database, in the place of whoever is there. */
async function addTestPeople(databaseUrl) {
  const { Client } = createRequire(join(__dirname, '../../web/package.json'))('pg');
  const client = new Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query('begin');
    await client.query('delete from people');
    await client.query('insert into devices (id, token_hash, name, added_by) values ($1, $2, $3, $4) on conflict do nothing', [
      DEVICE.id,
      createHash('sha256').update(DEVICE.token).digest('hex'),
      'device of the tests',
      'the tests',
    ]);
    for (const [id, { name, role }] of Object.entries(PEOPLE)) {
      await client.query('insert into people (id, name, role, email) values ($1, $2, $3, $4)', [id, name, role, `${id}@people.invalid`]);
      await client.query(
        `insert into sessions (id, token, user_id, device_id, expires_at) values ($1, $2, $1, $3, now() + interval '30 days')`,
        [id, tokenOf(id), DEVICE.id],
      );
    }
    await client.query('commit');
  } finally {
    await client.end();
  }
}

/** Cookies of somebody on the device of the tests, by name. */
function cookiesOf(id) {
  const token = tokenOf(id);
  const signature = createHmac('sha256', TEST_SECRET).update(token).digest('base64');
  return { 'wattograph.session_token': encodeURIComponent(`${token}.${signature}`), 'wattograph.device': DEVICE.token };
}

/** The same as a Cookie header. */
const cookieOf = (id) =>
  Object.entries(cookiesOf(id))
    .map(([name, value]) => `${name}=${value}`)
    .join('; ');

/** The same as a browser of Playwright takes it. */
const storageOf = (id) => ({
  cookies: Object.entries(cookiesOf(id)).map(([name, value]) => ({
    ...{ name, value, domain: '127.0.0.1', path: '/', expires: -1 },
    ...{ httpOnly: true, secure: false, sameSite: 'Lax' },
  })),
  origins: [],
});

/** what an application for tests is started with: many clients of few people */
const TEST_ENVIRONMENT = { WATTOGRAPH_SECRET: TEST_SECRET, WATTOGRAPH_REQUESTS: '1000000' };

module.exports = { TEST_SECRET, TEST_ENVIRONMENT, addTestPeople, cookieOf, storageOf };
