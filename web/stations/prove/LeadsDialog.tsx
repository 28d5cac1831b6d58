import { Button, Group, Modal, Select, Stack } from '@mantine/core';
import { useMemo, useState } from 'react';
import { listEqualLeads, nameProbe, toCount, type EqualLeads } from 'wattograph-core';
import { Swatch } from '../../ui/Swatch';
import styles from './Prove.module.css';
import type { ProvePack } from './provePack';

/** Leads that look alike and have lost their marks: one is found with each measurement, the last is what is left. Nothing is stored. */
export function LeadsDialog({ pack: { ringOut, plan }, onClose }: { pack: ProvePack; onClose: () => void }) {
  const groups = useMemo(() => ringOut.ends.flatMap(({ id }) => listEqualLeads(ringOut, plan.wires, id)), [ringOut, plan.wires]);
  const name = (group: EqualLeads) => `${ringOut.ends.find(({ id }) => id === group.endId)!.name}: ${group.leads.length} × ${group.words}`;
  const [at, setAt] = useState('0');
  const group = groups[Number(at)];
  return (
    <Modal opened onClose={onClose} title="Which lead is which" size="lg">
      <Stack gap="sm">
        {groups.length === 0 && (
          <p style={{ margin: 0 }}>No two leads of one end look alike in this loom: their colours tell them apart.</p>
        )}
        {groups.length > 0 && (
          <Select
            label="Leads that look alike"
            data={groups.map((one, index) => ({ value: String(index), label: name(one) }))}
            value={at}
            allowDeselect={false}
            searchable
            onChange={(value) => setAt(value ?? '0')}
          />
        )}
        {group && <Finder key={at} ringOut={ringOut} group={group} />}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Close
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

function Finder({ ringOut, group }: { ringOut: ProvePack['ringOut']; group: EqualLeads }) {
  const [found, setFound] = useState(0);
  const { leads, same } = group;
  const next = leads[found];
  const isLast = found === leads.length - 1;
  return (
    <section aria-label="Next lead" className={styles.next}>
      <h2>
        <Swatch colour={group.colour} /> {toCount(leads.length - found, 'lead')} without a mark
      </h2>
      {next && (
        <p className={styles.lead}>
          {isLast ? (
            <>
              The one that is left is <b>{next.number}</b>. Mark it, and ring it to {nameProbe(ringOut, next.far)}.
            </>
          ) : (
            <>
              Black stays on <b>{nameProbe(ringOut, next.far)}</b>. Touch the leads with red, one after another: the one that rings is{' '}
              <b>{next.number}</b>, for cavity {next.cavity}. Mark it.
            </>
          )}
        </p>
      )}
      {!next && (
        <p className={styles.lead}>
          All {leads.length} are marked, with {toCount(leads.length - 1, 'measurement')}.
        </p>
      )}
      {next && found === 0 && same.length > 0 && (
        <p style={{ margin: 0 }}>
          {same.join(', ')} {same.length > 1 ? 'lead' : 'leads'} to the same pins as another one of these: whichever is which, the loom is
          the same.
        </p>
      )}
      <Group>
        {next && <Button onClick={() => setFound(found + 1)}>Marked</Button>}
        {found > 0 && (
          <Button variant="default" onClick={() => setFound(found - 1)}>
            Back
          </Button>
        )}
      </Group>
      {next && !isLast && (
        <p className={styles.last}>
          None rings: that wire is open, or its far contact is not home. Take another one first, then look there.
        </p>
      )}
    </section>
  );
}
