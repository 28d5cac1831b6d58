// Application, worker and (where no DATABASE_URL is given) a private PostgreSQL, each kept running until this is told to end.
import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { backUpNightly } from './backup.mjs';
import { keepRunning } from './keep.mjs';
import { ensurePackages, findPort, isAlive, isPortFree } from './machine.mjs';
import { ensureBuild, ensureModules } from './made.mjs';
import { dataFolder, foreignDatabase, startPostgres } from './postgres.mjs';
import { isLoopback, prepareDatabase, spawnApplication, spawnWorker, toAddress, waitUntilUp, warmUp } from './server.mjs';

const LOOK_MS = 300;
const LONGEST_WAIT_MS = 10_000;
const USUAL_PORT = 4640;

/** Start everything; ends with the process. seed: put the demo jobs in where they are not there yet. */
export async function serve({ seed }) {
  const host = process.env.HOST ?? '127.0.0.1';
  expectNamed(host, seed);
  const foreign = foreignDatabase();
  const isPrivate = foreign === null;
  if (isPrivate) ensurePackages(['postgresql']);
  await ensureModules();
  await ensureBuild();
  const running = createRecord(dataFolder());
  const port = await choosePort(running.before);
  const database = isPrivate ? await keepPostgres(running.isAlone) : { ...foreign, stop: () => {}, pid: () => null };
  const kept = [];
  let isStopping = false;
  const stop = async (code) => {
    if (isStopping) return;
    isStopping = true;
    await Promise.all(kept.map((one) => one.stop()));
    database.stop();
    running.remove();
    process.exit(code);
  };
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  process.on('SIGHUP', () => void stop(0));
  try {
    await prepareDatabase(database.url, { seed, appUrl: database.appUrl });
    const options = { databaseUrl: database.appUrl || database.url, host, port, withParent: true };
    const note = () => running.write({ pid: process.pid, port, application: kept[0]?.pid, worker: kept[1]?.pid, postgres: database.pid() });
    const keep = (name, spawn) =>
      keepRunning({
        name,
        start: () => {
          const child = spawn(options);
          setTimeout(note);
          return child;
        },
        onGiveUp: () => void stop(1),
      });
    const address = toAddress(host, port);
    kept.push(keep('application', spawnApplication), keep('worker', spawnWorker));
    database.onRestart?.(note);
    await waitUntilUp(address, () => isStopping);
    // one that is started again meets people at work: they ask for what they need
    warmUp(address).catch(() => {});
    if (isPrivate) backUpNightly(database.url, dataFolder());
    console.log(
      `\n  Wattograph is at ${listAddresses(host, port).join(' and ')}\n  Data: ${isPrivate ? dataFolder() : 'the database of DATABASE_URL'}\n  Stop with Ctrl-C.\n`,
    );
  } catch (error) {
    if (!isStopping) console.error(error.message);
    await stop(1);
  }
}

/** A host that others reach must say by which names: a request under any other name is refused. */
function expectNamed(host, isDemo) {
  if (isLoopback(host)) return;
  if (isDemo)
    throw new Error(`HOST=${host}: everybody knows the digits of the demo, so it is served on this machine only. For others: npm start.`);
  if (process.env.WATTOGRAPH_HOSTS) return;
  throw new Error(
    `HOST=${host} serves whoever reaches this machine. Say by which names it is reached:\n\n  WATTOGRAPH_HOSTS=loom.example HOST=${host} npm start\n`,
  );
}

function listAddresses(host, port) {
  const names = isLoopback(host) ? [host] : process.env.WATTOGRAPH_HOSTS.split(',').map((name) => name.trim());
  return names.map((name) => toAddress(name, port));
}

/** The port asked for, or an error that says it is taken; where none was asked for, the usual one, or another one with a word about it. */
async function choosePort(before) {
  const asked = process.env.PORT === undefined ? null : Number(process.env.PORT);
  const wished = asked ?? USUAL_PORT;
  // what an earlier start that was killed left behind gives its port back in a moment
  for (
    let waited = 0;
    before && !isAlive(before.pid) && before.port === wished && waited < 5000 && !(await isPortFree(wished));
    waited += 200
  )
    await sleep(200);
  if (await isPortFree(wished)) return wished;
  if (asked !== null) throw new Error(`Port ${asked} is taken. End what listens there, or set PORT to another one.`);
  const port = await findPort();
  console.log(`Port ${USUAL_PORT} is taken, perhaps by another start of this: taking ${port}.`);
  return port;
}

/** What runs of this data folder, for who looks after the machine and for the next start. */
function createRecord(folder) {
  const file = join(folder, 'running.json');
  const read = () => {
    try {
      return JSON.parse(readFileSync(file, 'utf8'));
    } catch {
      return null;
    }
  };
  const before = existsSync(file) ? read() : null;
  return {
    before,
    /** no other start that is alive uses the folder */
    isAlone: () => before === null || !isAlive(before.pid),
    write(record) {
      if (before && before.pid !== process.pid && isAlive(before.pid)) return;
      try {
        writeFileSync(`${file}.new`, `${JSON.stringify(record)}\n`, { mode: 0o600 });
        renameSync(`${file}.new`, file);
      } catch {
        // a full disk, or a folder that is not there: nothing hangs on it
      }
    },
    remove() {
      if (read()?.pid === process.pid) rmSync(file, { force: true });
    },
  };
}

/** The private PostgreSQL, started again on its port whenever it is gone. */
async function keepPostgres(isAlone) {
  const folder = dataFolder();
  let server = await startPostgres(folder);
  const { port } = server;
  // one that an earlier start left behind is this one's to end
  const isOurs = server.started || isAlone();
  let isStopping = false;
  let told = () => {};
  const watch = async () => {
    let waitMs = LOOK_MS;
    while (!isStopping) {
      await sleep(waitMs);
      if (isStopping || isAlive(server.pid)) {
        waitMs = LOOK_MS;
        continue;
      }
      console.error('PostgreSQL is gone: started again');
      try {
        server = await startPostgres(folder, port);
        told();
        waitMs = LOOK_MS;
      } catch (error) {
        // no room, most likely: it comes back by itself when there is
        console.error(error.message.trim());
        waitMs = Math.min(LONGEST_WAIT_MS, waitMs * 2);
      }
    }
  };
  if (isOurs) void watch();
  return {
    url: server.url,
    appUrl: server.appUrl,
    pid: () => server.pid,
    onRestart: (listener) => (told = listener),
    stop: () => {
      isStopping = true;
      if (isOurs) server.stop();
    },
  };
}
