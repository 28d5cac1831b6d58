import { eq } from 'drizzle-orm';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { people, settings } from '../schema';
import { createCode, createPerson, hashCode } from './people';
import type { Role } from './rights';

const DEMO: { name: string; role: Role; pin: string }[] = [
  { name: 'Imke Dorsey', role: 'owner', pin: '1111' },
  { name: 'Jun Okafor', role: 'planner', pin: '2222' },
  { name: 'Saoirse Vell', role: 'crew', pin: '3333' },
  { name: 'Tobin Ashgrove', role: 'crew', pin: '4444' },
];
const DEMO_WORDS = `This is the demo, its people are made up: ${DEMO.map(({ name, pin }) => `${name} ${pin}`).join(', ')}.`;

/**
 * Before anybody is there: the made-up people of the demo, or the code that the first one must know. Gives what is to be said about it; null:
 * somebody is there, and nothing is new.
 */
export async function prepareFirst<S extends Record<string, unknown>>(db: NodePgDatabase<S>, isDemo: boolean): Promise<string | null> {
  return db.transaction(async (tx) => {
    const [somebody] = await tx.select({ id: people.id }).from(people).limit(1);
    const set = (name: string, value: string) =>
      tx.insert(settings).values({ name, value }).onConflictDoUpdate({ target: settings.name, set: { value } });
    if (somebody) {
      const [demo] = isDemo ? await tx.select().from(settings).where(eq(settings.name, 'demo')) : [];
      return demo?.value ?? null;
    }
    if (isDemo) {
      for (const one of DEMO) await createPerson(tx, { ...one, jobId: null, username: null, password: null });
      await set('demo', DEMO_WORDS);
      return DEMO_WORDS;
    }
    const code = createCode();
    await set('set-up code', hashCode(code));
    return `Nobody works here yet. Open it in a browser and set it up with this code: ${code}`;
  });
}
