'use client';

import { Button, Checkbox, FileButton, Group, Modal, ScrollArea, Select, Stack, Table } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  chooseWireKind,
  fromWireList,
  listHousings,
  listListedEnds,
  rankHousings,
  listWireKinds,
  toMapping,
  type Job,
  type Shop,
  type WireListMapping,
  createLoomId,
  importLoom,
  toCount,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { ColumnPicker, type ColumnField } from './ColumnPicker';
import { ProblemList } from '../findings/ProblemList';
import { isPrefix, LoomNameField, LoomPrefixField, useLoomForm } from '../loomForm';
import { useListFile } from './useListFile';

const FIELDS: ColumnField<keyof WireListMapping>[] = [
  { field: 'fromEnd', label: 'From end', required: true },
  { field: 'fromCavity', label: 'From cavity', required: true },
  { field: 'toEnd', label: 'To end', required: true },
  { field: 'toCavity', label: 'To cavity', required: true },
  { field: 'circuit', label: 'Circuit name', required: false },
  { field: 'colour', label: 'Colour', required: false },
  { field: 'size', label: 'Size', required: false },
];

/** Housings with these cavities, first those that take the thinnest wire that the shop uses: that is what most wires of a list become. */
function listFitting(job: Job, shop: Shop, wireTable: string, cavities: readonly string[]) {
  const { minimumSize } = shop.standards[job.standardId]!;
  const thinnest = shop.wires[wireTable]!.filter(({ size }) => size === minimumSize[wireTable]);
  return rankHousings(shop, listHousings(job, shop, cavities), new Map(cavities.map((cavity) => [cavity, thinnest])));
}

/** A from-to wire list to a new loom: read the file, say which column is what, see what comes of it, keep it. */
export function ImportWireList({ job, onClose, onDone }: { job: Job; onClose: () => void; onDone: (loomId: string) => void }) {
  const shop = useShop();
  const store = useJobStore();
  const [mapping, setMapping] = useState<Partial<WireListMapping>>({});
  const [joinShared, setJoinShared] = useState(false);
  const [families, setFamilies] = useState<Record<string, string>>({});
  const [wireTable, setWireTable] = useState(() => chooseWireKind(job, shop));
  const form = useLoomForm(job);
  const { name, prefix } = form.values;
  const { table, fileName, problems, choose } = useListFile((read, title) => {
    setMapping(toMapping(read.columns));
    setFamilies({});
    if (form.getValues().name === '') form.setFieldValue('name', title);
  });
  const isMapped = FIELDS.every(({ field, required }) => !required || mapping[field]);
  const whole = useMemo(() => ({ circuit: null, colour: null, size: null, ...mapping }) as WireListMapping, [mapping]);
  const ends = useMemo(
    () =>
      table && isMapped
        ? listListedEnds(table, whole).map((end) => ({ ...end, housings: listFitting(job, shop, wireTable, end.cavities) }))
        : [],
    [table, isMapped, whole, job, shop, wireTable],
  );
  const made = useMemo(() => {
    if (!table || !isMapped) return null;
    return fromWireList(
      job,
      table,
      whole,
      { name: name.trim() || 'imported', prefix: isPrefix(prefix) ? prefix.trim() : 'X', joinShared, families, wireTable },
      shop,
    );
  }, [table, isMapped, whole, name, prefix, joinShared, families, wireTable, job, shop]);
  const open = ends.filter((end) => !Object.hasOwn(families, end.name));
  const takeSmallest = () =>
    setFamilies({
      ...Object.fromEntries(open.flatMap((end) => (end.housings[0] ? [[end.name, end.housings[0][0]] as const] : []))),
      ...families,
    });
  const keep = () => {
    if (!made?.ok) return;
    const id = createLoomId(store.get().document.looms);
    store.edit(importLoom(id, made.value));
    onDone(id);
  };
  return (
    <Modal opened onClose={onClose} title="A loom from a wire list (CSV)" size="xl">
      <Stack gap="sm">
        <Group>
          <FileButton onChange={(file) => void choose(file)} accept=".csv,.txt,.xlsx,text/csv">
            {(props) => (
              <Button variant="default" {...props}>
                Choose the file
              </Button>
            )}
          </FileButton>
          <span className="faint">
            {table
              ? `${fileName}: ${toCount(table.rows.length, 'row')}, fields parted by ${table.delimiter === '\t' ? 'tabs' : `“${table.delimiter}”`}`
              : 'one row a wire: from end, from cavity, to end, to cavity'}
          </span>
        </Group>
        {problems.length > 0 && <ProblemList title={`${fileName} was not read; nothing was stored`} problems={problems} />}
        {table && (
          <>
            <Group grow align="end">
              <LoomNameField form={form} label="Name of the loom" />
              <LoomPrefixField form={form} />
              <Select
                label="Wire"
                allowDeselect={false}
                data={listWireKinds(shop, shop.standards[job.standardId]!)}
                value={wireTable}
                onChange={(value) => setWireTable(value!)}
              />
            </Group>
            <ColumnPicker
              fields={FIELDS}
              table={table}
              mapping={mapping}
              onChange={(field, column) => setMapping((now) => ({ ...now, [field]: column }))}
            />
            <Checkbox
              label="Join rows that share a cavity into one spliced circuit"
              checked={joinShared}
              onChange={(event) => setJoinShared(event.currentTarget.checked)}
            />
            <Group justify="space-between">
              <b>Housings</b>
              <Button
                size="compact-sm"
                variant="default"
                disabled={open.every(({ housings }) => housings.length === 0)}
                onClick={takeSmallest}
              >
                The smallest that has the cavities, for all
              </Button>
            </Group>
            <ScrollArea.Autosize mah={190}>
              <Table verticalSpacing={2}>
                <Table.Tbody>
                  {ends.map((end) => (
                    <Table.Tr key={end.name}>
                      <Table.Td>{end.name}</Table.Td>
                      <Table.Td
                        className="mono"
                        style={{ maxWidth: 220, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                        title={end.cavities.join(', ')}
                      >
                        {end.cavities.join(' ')}
                      </Table.Td>
                      <Table.Td w={320}>
                        <Select
                          size="xs"
                          aria-label={`Housing of ${end.name}`}
                          placeholder={end.housings.length > 0 ? 'to be chosen later' : 'none of the shop has these; later'}
                          searchable
                          clearable
                          data={end.housings.map(([value, { name: label }]) => ({ value, label }))}
                          value={families[end.name] ?? null}
                          onChange={(value) =>
                            setFamilies((now) =>
                              value === null
                                ? Object.fromEntries(Object.entries(now).filter(([one]) => one !== end.name))
                                : { ...now, [end.name]: value },
                            )
                          }
                        />
                      </Table.Td>
                    </Table.Tr>
                  ))}
                </Table.Tbody>
              </Table>
            </ScrollArea.Autosize>
            {made && !made.ok && <ProblemList title="This cannot become a loom yet; nothing was stored" problems={made.problems} />}
            {made?.ok && (
              <p style={{ margin: 0 }}>
                It makes {toCount(Object.keys(made.value.ends).length, 'end')} and{' '}
                {toCount(Object.keys(made.value.circuits).length, 'circuit')}. The end with most wires becomes the anchor; every leg is 300
                mm and marked <b>guessed</b>, so that nothing is cut before you measure it.
                {open.length > 0 &&
                  ` ${open.length === 1 ? 'One end' : `${open.length} ends`} without a housing: each is a stop finding until it is chosen, and its wires keep their cavities.`}
              </p>
            )}
          </>
        )}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button disabled={!made?.ok || !form.isValid()} onClick={keep}>
            Make the loom
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}
