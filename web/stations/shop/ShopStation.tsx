'use client';

import { Button, FileButton, Menu } from '@mantine/core';
import { Link } from '../../ui/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import {
  BOUGHT_TABLES,
  compareShops,
  copyWireKind,
  createRecordId,
  createTool,
  describeRecord,
  fromJsonText,
  fromShopTable,
  isBoughtTable,
  isOffered,
  listRecords,
  putRecord,
  toWireId,
  SHOP_TABLES,
  toPresentShop,
  toBuyingKey,
  toShopTable,
  toShopTableCsv,
  type Conductor,
  type Problem,
  type Shop,
  type ShopRecord,
  type ShopTable,
} from 'wattograph-core';
import { setPerson, useMay } from '../../client/person';
import { toUrl } from '../../client/base';
import { request, RequestError } from '../../client/request';
import { ProblemList } from '../../ui/findings/ProblemList';
import type { Person } from '../../server/accounts/rights';
import { Who } from '../../ui/accounts/Who';
import { readTable } from '../../ui/wireList/readTable';
import { saveFile } from '../../client/saveFile';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { saveTable } from '../../ui/table/saveTable';
import { ReadDialog } from './ReadDialog';
import { RecordEditor, type User } from './RecordEditor';
import styles from './Shop.module.css';
import { Currency, People } from './ShopFacts';
import { TABLE_NAMES } from '../../ui/wireList/tableNames';
import { TakeDialog } from './TakeDialog';

export interface VersionLine {
  version: number;
  author: string;
  note: string;
  at: string;
}

const MOST_BYTES = 8 * 1024 * 1024;

/** people and what has no id of its own */
const NOT_COPIED: readonly ShopTable[] = ['people', 'grommets', 'plugs', 'buying'];

/** Everything the shop decides: what it buys, how it works, who works there. Changes gather in a draft until they are taken. */
export function ShopStation({
  person,
  version,
  shop,
  versions,
  users,
}: {
  person: Person;
  version: number;
  shop: Shop;
  versions: readonly VersionLine[];
  /** jobs that use a record, by table/id */
  users: Readonly<Record<string, readonly User[]>>;
}) {
  const router = useRouter();
  useState(() => setPerson(person));
  const mayPlan = useMay('plan');
  const [draft, setDraft] = useState(shop);
  const [past, setPast] = useState<Shop[]>([]);
  // fields keep what is typed in them: after an undo they begin anew
  const [undone, setUndone] = useState(0);
  const [table, setTable] = useState<ShopTable>('standards');
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [search, setSearch] = useState('');
  const [taking, setTaking] = useState(false);
  const [other, setOther] = useState<Shop | null>(null);
  const [problems, setProblems] = useState<{ title: string; list: Problem[] } | null>(null);
  const differences = useMemo(() => compareShops(shop, draft), [shop, draft]);
  const count = differences.reduce((sum, { added, changed, gone }) => sum + added.length + changed.length + gone.length, 0);
  const counts = useMemo(() => new Map(SHOP_TABLES.map((one) => [one, listRecords(draft, one).length])), [draft]);
  const records = useMemo(() => listNamedRecords(draft, table), [draft, table]);
  const chosen = records.find(({ id }) => id === chosenId) ?? null;
  const marks = useMemo(() => {
    const of = differences.find((one) => one.table === table);
    return new Map([
      ...(of?.added ?? []).map(({ id }) => [id, 'new'] as const),
      ...(of?.changed ?? []).map(({ id }) => [id, 'changed'] as const),
    ]);
  }, [differences, table]);
  const found = useMemo(() => {
    const words = search.trim().toLowerCase();
    const all = words === '' ? records : records.filter(({ id, name }) => `${name} ${id}`.toLowerCase().includes(words));
    // what the draft changes stands first, what is retired last
    const ranks: ShopRecord[][] = [[], [], []];
    for (const record of all) ranks[marks.has(record.id) ? 0 : isRetired(draft, table, record.id) ? 2 : 1]!.push(record);
    return ranks.flat();
  }, [records, search, marks, draft, table]);
  const columns = useMemo(() => createColumns(draft, table, marks), [draft, table, marks]);
  useEffect(() => {
    if (count === 0) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [count]);
  const change = (next: Shop) => {
    setPast([...past, draft].slice(-100));
    setDraft(next);
  };
  const undo = () => {
    setDraft(past.at(-1)!);
    setPast(past.slice(0, -1));
    setUndone(undone + 1);
  };
  const copy = () => {
    if (!chosen) return;
    if (table === 'wires') {
      const wire = chosen.value as Conductor;
      const kind = createRecordId(new Set(Object.keys(draft.wires)), wire.table);
      change(copyWireKind(draft, wire.table, kind));
      return setChosenId(toWireId({ ...wire, table: kind }));
    }
    const id = createRecordId(new Set(records.map((one) => one.id)), chosen.id);
    const value = chosen.value as Record<string, unknown>;
    change(putRecord(draft, table, id, { ...value, ...('id' in value ? { id } : {}), name: `${chosen.name}, copy` }));
    setChosenId(id);
  };
  const copySize = (wire: Conductor) => {
    const size = createRecordId(new Set(draft.wires[wire.table]!.map((one) => one.size)), wire.size);
    const id = toWireId({ ...wire, size });
    change(putRecord(draft, 'wires', id, { ...wire, size }));
    setChosenId(id);
  };
  const propose = (next: Shop) => {
    change(next);
    setOther(null);
    setTaking(true);
  };
  const readRows = async (file: File | null) => {
    if (!file) return;
    setProblems(null);
    const parsed = await readTable(file);
    const made = parsed.ok ? fromShopTable(draft, table, parsed.value) : parsed;
    if (!made.ok) return setProblems({ title: `${file.name} was not read; nothing is changed`, list: made.problems });
    setUndone(undone + 1);
    change(made.value);
  };
  const saveSpreadsheet = async () => {
    setProblems(null);
    const saved = await saveTable(table, toShopTable(draft, table));
    if (!saved.ok) setProblems({ title: `${table}.xlsx was not made`, list: saved.problems });
  };
  const read = async (name: string, text: () => Promise<string>, onRead: (theirs: Shop) => void) => {
    setProblems(null);
    try {
      const parsed = fromJsonText(await text());
      if (!parsed.ok) return setProblems({ title: `${name} was not read`, list: parsed.problems });
      // the gate is the server's: what it lets through is shown as a draft
      await request('/api/shop/preview', { document: parsed.value });
      onRead(toPresentShop(parsed.value as Record<string, unknown>) as unknown as Shop);
    } catch (error) {
      setProblems({
        title: `${name} was not read; nothing is changed`,
        list: error instanceof RequestError ? error.problems : [{ path: '', message: String(error) }],
      });
    }
  };
  const readFile = (file: File | null) => {
    if (!file) return;
    if (file.size > MOST_BYTES)
      return setProblems({
        title: `${file.name} was not read`,
        list: [{ path: '', message: `expected at most 8 MB, got ${(file.size / 1024 / 1024).toFixed(0)} MB` }],
      });
    void read(file.name, () => file.text(), setOther);
  };
  const bringBack = (number: number) =>
    void read(`Version ${number}`, async () => JSON.stringify(await request<Shop>(`/api/shop/versions/${number}`)), propose);
  const rowTools = (
    <>
      <Menu position="bottom-start">
        <Menu.Target>
          <button className={styles.link}>Rows out</button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => saveFile(`${table}.csv`, toShopTableCsv(draft, table))}>as CSV</Menu.Item>
          <Menu.Item onClick={() => void saveSpreadsheet()}>as XLSX</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <FileButton key={`${table} ${undone}`} onChange={(file) => void readRows(file)} accept=".csv,.txt,.xlsx,text/csv">
        {(props) => (
          <button className={styles.link} title="from CSV or XLSX with these columns: known ones are changed, others added" {...props}>
            Rows in
          </button>
        )}
      </FileButton>
    </>
  );
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <h1>
          <Link href="/">Wattograph</Link> · {draft.name}
        </h1>
        <Menu position="bottom-start">
          <Menu.Target>
            <button className={styles.version}>version {version}</button>
          </Menu.Target>
          <Menu.Dropdown>
            {versions.map((one) => (
              <Menu.Item key={one.version} disabled={one.version === version} onClick={() => bringBack(one.version)}>
                {one.version}, {one.at.slice(0, 10)}, {one.author}
                {one.note ? `: ${one.note}` : ''}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        <div className={styles.tools}>
          <Who />
          <Button variant="default" component="a" href={toUrl('/api/shop?as=file')}>
            Export
          </Button>
          <FileButton onChange={readFile} accept=".json,application/json">
            {(props) => (
              <Button variant="default" {...props}>
                Read a shop file
              </Button>
            )}
          </FileButton>
          <Button variant="default" disabled={past.length === 0} onClick={undo}>
            Undo
          </Button>
          <Button disabled={count === 0 || !mayPlan} onClick={() => setTaking(true)}>
            {!mayPlan
              ? 'Planners change the shop'
              : count === 0
                ? 'Nothing changed'
                : `Take ${count} ${count === 1 ? 'change' : 'changes'} …`}
          </Button>
        </div>
      </header>
      {problems && <ProblemList title={problems.title} problems={problems.list} onClose={() => setProblems(null)} />}
      <div className={styles.body} data-wide={table === 'devices' || undefined}>
        <nav className={styles.tables} aria-label="Tables">
          {SHOP_TABLES.map((one) => {
            const of = differences.find((difference) => difference.table === one);
            return (
              <button
                key={one}
                aria-current={one === table ? 'true' : undefined}
                onClick={() => {
                  setTable(one);
                  setChosenId(null);
                  setSearch('');
                }}
              >
                {TABLE_NAMES[one]}
                <span>
                  {of && <i title="changed in this draft">● </i>}
                  {counts.get(one)}
                </span>
              </button>
            );
          })}
        </nav>
        <section className={styles.list} aria-label={TABLE_NAMES[table]}>
          <DataTable
            key={table}
            name={`shop-${table}`}
            label={`Records: ${TABLE_NAMES[table]}`}
            rows={found}
            columns={columns}
            keyOf={({ id }) => id}
            isHere={({ id }) => id === chosenId}
            onPick={({ id }) => setChosenId(id)}
            seek={chosenId}
            search={{
              words: search,
              onWords: setSearch,
              label: 'Search',
              placeholder: `search ${records.length}`,
              of: records.length,
            }}
            empty={
              <>
                {rowTools}
                <p className="faint">None yet: take rows in, from CSV or XLSX.</p>
              </>
            }
          >
            {rowTools}
          </DataTable>
        </section>
        <section className={styles.editor} aria-label="Record">
          {table === 'people' ? (
            <People people={draft.people} onChange={(people) => change({ ...draft, people })} />
          ) : chosen ? (
            <RecordEditor
              key={`${table} ${chosen.id} ${undone}`}
              shop={draft}
              table={table}
              record={chosen}
              onChange={(value) => {
                change(putRecord(draft, table, chosen.id, value));
                if (table === 'wires') setChosenId(toWireId(value as Conductor));
              }}
              users={users[`${table}/${chosen.id}`] ?? []}
              onShop={change}
              onCopy={NOT_COPIED.includes(table) ? null : copy}
              onCopySize={table === 'wires' ? () => copySize(chosen.value as Conductor) : null}
              onRemove={() => {
                change(putRecord(draft, table, chosen.id, undefined));
                setChosenId(null);
              }}
            />
          ) : (
            <>
              <p className="faint">Choose one to see and change it{table === 'buying' ? '.' : ', or to make another from it.'}</p>
              {table === 'buying' && <Currency currency={draft.currency} onChange={(currency) => change({ ...draft, currency })} />}
              {table === 'tools' && (
                <Button
                  variant="default"
                  onClick={() => {
                    const id = createRecordId(new Set(records.map((one) => one.id)), 'tool');
                    change(putRecord(draft, 'tools', id, createTool(id, `tool ${id.slice(5)}`)));
                    setChosenId(id);
                  }}
                >
                  A tool that is not listed
                </Button>
              )}
            </>
          )}
        </section>
      </div>
      {other && <ReadDialog mine={draft} theirs={other} onClose={() => setOther(null)} onRead={propose} />}
      {taking && (
        <TakeDialog
          base={version}
          draft={draft}
          onClose={() => setTaking(false)}
          onTaken={() => {
            setTaking(false);
            setPast([]);
            router.refresh();
          }}
        />
      )}
    </div>
  );
}

const createColumns = (shop: Shop, table: ShopTable, marks: ReadonlyMap<string, string>): Column<ShopRecord>[] => [
  {
    id: 'name',
    head: 'name',
    value: ({ name }) => name,
    // the row chooses it; by keys the button does
    cell: ({ id, name }) => (
      <>
        <button className={styles.record}>{name}</button>
        <span className={styles.state}>{[marks.get(id), isRetired(shop, table, id) && 'retired'].filter(Boolean).join(', ')}</span>
      </>
    ),
  },
  { id: 'what', head: 'what it is', value: (record) => describeRecord(shop, table, record), className: styles.what },
];

/** Prices are named as the part they are of. */
function listNamedRecords(shop: Shop, table: ShopTable): ShopRecord[] {
  const records = listRecords(shop, table);
  if (table !== 'buying') return records;
  const names = new Map(BOUGHT_TABLES.flatMap((one) => listRecords(shop, one).map(({ id, name }) => [toBuyingKey(one, id), name])));
  return records.map((record) => ({ ...record, name: names.get(record.id) ?? record.name }));
}

const isRetired = (shop: Shop, table: ShopTable, id: string): boolean =>
  table === 'buying' ? shop.buying[id]?.retired === true : isBoughtTable(table) && !isOffered(shop, table, id);
