import { Button, Group, Modal, NumberInput, Progress, Select, Stack } from '@mantine/core';
import { useRef, useState } from 'react';
import {
  createStandInDevice,
  examine,
  fromReadings,
  plantFault,
  PLANTED_KINDS,
  readCsv,
  toCount,
  toTestsCsv,
  type PlantedKind,
  type ProofTest,
} from 'wattograph-core';
import { saveFile } from '../../client/saveFile';
import type { ProvePack } from './provePack';

const WORDS: Record<PlantedKind | 'sound', string> = {
  sound: 'nothing wrong',
  open: 'a wire that is open',
  short: 'two neighbours that touch',
  exchange: 'two contacts exchanged',
  screen: 'a screen on its core',
  poor: 'a poor joint',
  turn: 'a row turned by two',
};
const CHUNK = 12;

/**
 * The tester that ships, for learning and for showing: a made-up loom with a fault in it, asked and answering by the same two files as a real
 * tester. It measures what is left, then what would tell what is wrong. What it answers stays on the page.
 */
export function StandInDialog({
  pack,
  values,
  onRead,
  onClose,
}: {
  pack: ProvePack;
  values: ReadonlyMap<string, number>;
  onRead: (read: { test: ProofTest; value: number }[]) => void;
  onClose: () => void;
}) {
  const [kind, setKind] = useState<PlantedKind | 'sound'>('exchange');
  const [seed, setSeed] = useState(1);
  const [done, setDone] = useState<{ of: number; count: number } | null>(null);
  const [problem, setProblem] = useState('');
  const isCancelled = useRef(false);
  const { ringOut } = pack;
  const connect = () => {
    const planted = kind === 'sound' ? null : plantFault(ringOut, kind, seed);
    setProblem(kind !== 'sound' && !planted ? `This loom has no place for ${WORDS[kind]}.` : '');
    return kind !== 'sound' && !planted ? null : createStandInDevice(ringOut, planted ? [planted] : [], seed);
  };
  const save = () => {
    const device = connect();
    if (device) saveFile('stand-in readings.csv', device(toTestsCsv(ringOut)));
  };
  const run = async () => {
    const device = connect();
    if (!device) return;
    isCancelled.current = false;
    const known = new Map(values);
    for (let count = 0; !isCancelled.current;) {
      const { unread, seeks } = examine(ringOut, known);
      const batch = (unread.length > 0 ? unread : seeks).slice(0, CHUNK);
      if (batch.length === 0) break;
      const table = readCsv(device(toTestsCsv(ringOut, batch)));
      const read = table.ok ? fromReadings(ringOut, table.value) : table;
      if (!read.ok) return setProblem(read.problems.map(({ path, message }) => `${path}: ${message}`).join('; '));
      const byId = new Map(batch.map((test) => [test.id, test]));
      for (const { test, value } of read.value) known.set(test, value);
      onRead(read.value.map(({ test, value }) => ({ test: byId.get(test)!, value })));
      count += batch.length;
      setDone({ count, of: count + Math.max(0, unread.length - batch.length) });
      // the page draws, and takes a press on Stop
      await new Promise((resolve) => setTimeout(resolve));
    }
    setDone(null);
    if (!isCancelled.current) onClose();
  };
  return (
    <Modal opened onClose={() => done === null && onClose()} title="Stand-in tester" size="md">
      <Stack gap="sm">
        <p style={{ margin: 0 }}>
          A made-up loom to learn on: it is asked and answers by the same files as a real tester. Its readings are kept under its name, and
          a loom is not passed with them.
        </p>
        <Select
          label="The loom on it has"
          data={(['sound', ...PLANTED_KINDS] as const).map((value) => ({ value, label: WORDS[value] }))}
          value={kind}
          allowDeselect={false}
          disabled={done !== null}
          onChange={(value) => setKind(value as PlantedKind | 'sound')}
        />
        <NumberInput
          label="Seed"
          description="The same seed puts the fault at the same place"
          min={1}
          max={999_999}
          allowDecimal={false}
          value={seed}
          disabled={done !== null}
          onChange={(value) => setSeed(Math.min(999_999, Math.max(1, Number(value) || 1)))}
        />
        {problem !== '' && <p style={{ margin: 0, color: 'var(--action)' }}>{problem}</p>}
        {done && <Progress value={(100 * done.count) / done.of} aria-label={`${toCount(done.count, 'measurement')} made`} />}
        <Group justify="flex-end">
          {done ? (
            <Button variant="default" onClick={() => (isCancelled.current = true)}>
              Stop
            </Button>
          ) : (
            <>
              <Button variant="default" onClick={onClose}>
                Leave it
              </Button>
              <Button variant="default" onClick={save}>
                Save its readings
              </Button>
              <Button onClick={() => void run()}>Measure what is left</Button>
            </>
          )}
        </Group>
      </Stack>
    </Modal>
  );
}
