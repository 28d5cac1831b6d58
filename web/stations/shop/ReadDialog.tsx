import { Button, Checkbox, Group, Modal, ScrollArea, Stack } from '@mantine/core';
import { useMemo, useState } from 'react';
import { compareShops, mergeShops, type Shop } from 'wattograph-core';
import { TABLE_NAMES } from '../../ui/wireList/tableNames';
import styles from './Shop.module.css';

const MOST = 200;

/** Another shop's file beside the draft: what it adds, and for each record that both have and that differs whose figures count. */
export function ReadDialog({
  mine,
  theirs,
  onClose,
  onRead,
}: {
  mine: Shop;
  theirs: Shop;
  onClose: () => void;
  onRead: (next: Shop) => void;
}) {
  const differences = useMemo(() => compareShops(mine, theirs), [mine, theirs]);
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const changed = differences.flatMap(({ table, changed: list }) => list.map((one) => ({ ...one, table, key: `${table} ${one.id}` })));
  const added = differences.reduce((sum, one) => sum + one.added.length, 0);
  const gone = differences.reduce((sum, one) => sum + one.gone.length, 0);
  const toggle = (key: string) => setTaken((now) => new Set(now.has(key) ? [...now].filter((one) => one !== key) : [...now, key]));
  const isAll = changed.length > 0 && taken.size === changed.length;
  return (
    <Modal opened onClose={onClose} title={`${theirs.name}: read into ${mine.name}`} size="xl">
      <Stack gap="sm">
        {differences.length === 0 && <p style={{ margin: 0 }}>Nothing in it differs from this shop.</p>}
        {differences.length > 0 && (
          <p style={{ margin: 0 }}>
            {added === 0
              ? 'It has nothing that this shop has not.'
              : `${added} ${added === 1 ? 'record' : 'records'} it has and this shop has not: ${differences
                  .filter((one) => one.added.length > 0)
                  .map((one) => `${one.added.length} ${TABLE_NAMES[one.table].toLowerCase()}`)
                  .join(', ')}.`}{' '}
            {gone > 0 && `${gone} of this shop it has not; merged, they stay.`}
          </p>
        )}
        {changed.length > 0 && (
          <>
            <Checkbox
              label={`Both have ${changed.length} that ${changed.length === 1 ? 'differs' : 'differ'}: take those of the file`}
              checked={isAll}
              indeterminate={taken.size > 0 && !isAll}
              onChange={() => setTaken(new Set(isAll ? [] : changed.map(({ key }) => key)))}
            />
            <ScrollArea.Autosize mah={320}>
              <Stack gap={4} pl="md">
                {changed.slice(0, MOST).map(({ key, table, name, fields }) => (
                  <Checkbox
                    key={key}
                    size="xs"
                    label={`${name}, ${TABLE_NAMES[table].toLowerCase()}`}
                    description={fields.slice(0, 4).join('; ')}
                    checked={taken.has(key)}
                    onChange={() => toggle(key)}
                  />
                ))}
                {changed.length > MOST && <p className="faint">and {changed.length - MOST} more, taken or left with the box above</p>}
              </Stack>
            </ScrollArea.Autosize>
          </>
        )}
        <p className={`faint ${styles.fits}`}>Either makes a draft: what it changes in the jobs is shown before it is taken.</p>
      </Stack>
      <Group justify="flex-end">
        <Button variant="default" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="default" disabled={differences.length === 0} onClick={() => onRead(theirs)}>
          Replace this shop
        </Button>
        <Button
          disabled={added + taken.size === 0}
          onClick={() => onRead(mergeShops(mine, theirs, (table, id) => taken.has(`${table} ${id}`)))}
        >
          Merge
        </Button>
      </Group>
    </Modal>
  );
}
