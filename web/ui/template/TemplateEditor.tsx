import { Button, FileButton, Group } from '@mantine/core';
import { useState } from 'react';
import { fromPinList, listTemplateProblems, toPinListCsv, type DeviceTemplate, type Problem, type TemplateRows } from 'wattograph-core';
import { ProblemList } from '../findings/ProblemList';
import { readTable } from '../wireList/readTable';
import { saveFile } from '../../client/saveFile';
import { LinkRows } from './LinkRows';
import { NeedRows } from './NeedRows';
import { OfferRows } from './OfferRows';
import styles from './Template.module.css';

/** The rows of a template while they are written. */
export type EditedRows = { [Key in keyof TemplateRows]: [string, TemplateRows[Key][number][1]][] };

/** The rows of a template as it is kept. */
export const toRows = ({ pins, offers, links }: Pick<DeviceTemplate, 'pins' | 'offers' | 'links'>): EditedRows => ({
  pins: Object.entries(pins),
  offers: Object.entries(offers),
  links: Object.entries(links),
});

/** The template that rows without problems make. */
export const fromRows = ({ pins, offers, links }: EditedRows): Pick<DeviceTemplate, 'pins' | 'offers' | 'links'> => ({
  pins: Object.fromEntries(pins),
  offers: Object.fromEntries(offers),
  links: Object.fromEntries(links),
});

/** Every pin of a kind of device: what it needs or gives, what joins them inside; typed, or from a list (CSV, XLSX). */
export function TemplateEditor({
  name,
  rows,
  others,
  onChange,
}: {
  /** of the file that its pins are saved as */
  name: string;
  rows: EditedRows;
  /** other kinds of device: plugs of the same unit may be among them */
  others: Readonly<Record<string, DeviceTemplate>>;
  onChange: (rows: EditedRows) => void;
}) {
  const [refused, setRefused] = useState<{ title: string; problems: Problem[] } | null>(null);
  // fields keep what is typed in them: after a list was read they begin anew
  const [lists, setLists] = useState(0);
  const choices = [...new Set([...rows.pins, ...rows.offers].map(([pin]) => pin))];
  const problems = [...new Set(listTemplateProblems(rows).map(({ message }) => message))];
  const read = async (file: File | null) => {
    if (!file) return;
    setRefused(null);
    const table = await readTable(file);
    const made = table.ok ? fromPinList(table.value) : table;
    if (!made.ok) return setRefused({ title: `${file.name} was not read; nothing is changed`, problems: made.problems });
    setLists(lists + 1);
    onChange({ ...rows, pins: Object.entries(made.value.pins), offers: Object.entries(made.value.offers) });
  };
  return (
    <div className={styles.wide} key={lists}>
      <Group gap="xs" mt="xs">
        <FileButton onChange={(file) => void read(file)} accept=".csv,.txt,.xlsx,text/csv">
          {(props) => (
            <Button variant="default" size="xs" title="a row a pin; these pins are put in place of those here" {...props}>
              Pins from a list
            </Button>
          )}
        </FileButton>
        <Button variant="default" size="xs" onClick={() => saveFile(`${name || 'pins'}.csv`, toPinListCsv(fromRows(rows)))}>
          Pins as CSV
        </Button>
      </Group>
      {refused && <ProblemList {...refused} onClose={() => setRefused(null)} />}
      <NeedRows pins={rows.pins} onChange={(pins) => onChange({ ...rows, pins })} />
      <h3>If it is a box: what its pins give, and what joins them inside</h3>
      <OfferRows offers={rows.offers} pins={choices} onChange={(offers) => onChange({ ...rows, offers })} />{' '}
      <LinkRows links={rows.links} pins={choices} others={others} onChange={(links) => onChange({ ...rows, links })} />
      {problems.map((words) => (
        <p key={words} role="alert" className={styles.alarm}>
          {words}
        </p>
      ))}
    </div>
  );
}
