import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { Client } from 'pg';
import { createCode, hashCode, INVITE_DAYS } from './accounts/people';
import { ROLES, type Role } from './accounts/rights';
import { audit, invites, people } from './schema';

/** A code from the machine itself, for where nobody is left who could make one: letIn.ts NAME [ROLE]. */
async function letIn(): Promise<void> {
  const [name, wanted = 'owner'] = process.argv.slice(2);
  if (!name) throw new Error('expected a name: npm run let-in -- "Imke Dorsey" [role]');
  const role = ROLES.find((one) => one === wanted);
  if (!role) throw new Error(`expected one of ${ROLES.join(', ')}, got ${JSON.stringify(wanted)}`);
  const client = new Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    const db = drizzle(client);
    const code = createCode();
    const [known] = await db.select().from(people).where(eq(people.name, name));
    const invitedBy = 'this machine';
    await db.insert(invites).values({
      ...{
        id: randomUUID(),
        codeHash: hashCode(code),
        name,
        role: known?.role ?? (role satisfies Role),
        personId: known?.id ?? null,
        invitedBy,
      },
      expiresAt: new Date(Date.now() + INVITE_DAYS * 86_400_000),
    });
    await db.insert(audit).values({ person: invitedBy, what: 'invited', about: `${name} as ${known?.role ?? role}` });
    console.log(`${name} comes in at /welcome with this code, once, within a week: ${code}`);
  } finally {
    await client.end();
  }
}

letIn().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
});
