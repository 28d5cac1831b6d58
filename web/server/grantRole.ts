import { sql, type SQL } from 'drizzle-orm';

interface Executor {
  execute(query: SQL): Promise<{ rows: Record<string, unknown>[] }>;
}

const SCHEMAS = ['public', 'pgboss'];
/** kept for good: added to, never changed */
const APPENDED = ['audit'];

const quoteName = (name: string): string => `"${name.replaceAll('"', '""')}"`;
const quoteText = (text: string): string => `'${text.replaceAll("'", "''")}'`;

/**
 * Let the role of an address work with what is stored, and do nothing else: no tables made or dropped, no other roles, no files of the machine. It is
 * made where it is not there.
 * @param address of a database: the role and its password
 */
export async function grantRole(db: Executor, address: string): Promise<void> {
  const { username, password } = new URL(address);
  const [role, secret] = [decodeURIComponent(username), decodeURIComponent(password)];
  const [self] = (await db.execute(sql`select current_user as name, exists (select from pg_roles where rolname = ${role}) as "isThere"`))
    .rows;
  if (!role || self!.name === role) throw new Error('the role of the application is the one that owns the tables: expected another one');
  const run = (text: string) => db.execute(sql.raw(text));
  const name = quoteName(role);
  // names and passwords are no parameters in these statements
  if (!self!.isThere)
    await run(`create role ${name} login password ${quoteText(secret)} nosuperuser nocreatedb nocreaterole noreplication`);
  for (const schema of SCHEMAS) {
    await run(`grant usage on schema ${schema} to ${name}`);
    await run(`grant select, insert, update, delete on all tables in schema ${schema} to ${name}`);
    await run(`grant usage, select on all sequences in schema ${schema} to ${name}`);
    await run(`grant execute on all functions in schema ${schema} to ${name}`);
  }
  for (const table of APPENDED) await run(`revoke update, delete on public.${table} from ${name}`);
  await run('revoke create on schema public from public');
}
