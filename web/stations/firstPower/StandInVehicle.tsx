import { Button, Group, Modal, NumberInput, Select, Stack } from '@mantine/core';
import { useState } from 'react';
import {
  createStandInVehicle,
  judgePower,
  plantPowerFault,
  POWER_FAULTS,
  toWokenId,
  type FirstPower,
  type PowerFaultKind,
  type PowerTest,
} from 'wattograph-core';

const WORDS: Record<PowerFaultKind | 'sound', string> = {
  sound: 'nothing wrong',
  open: 'a piece that does not conduct',
  weak: 'a high resistance',
  joined: 'two nets that are one behind their feeds',
  round: 'something that goes round the isolator',
};

interface StandInReading {
  test: PowerTest;
  readId: string;
  value: number;
}

/**
 * A made-up vehicle to learn on: it is read in the order of the sheet until something surprises. What it reads stays on the page.
 */
export function StandInVehicle({
  sheet,
  values,
  onRead,
  onClose,
}: {
  sheet: FirstPower;
  /** of the practice, so far */
  values: ReadonlyMap<string, number>;
  onRead: (readings: StandInReading[]) => void;
  onClose: () => void;
}) {
  const [kind, setKind] = useState<PowerFaultKind | 'sound'>('joined');
  const [seed, setSeed] = useState(1);
  const [problem, setProblem] = useState('');
  const run = (most: number) => {
    const planted = kind === 'sound' ? null : plantPowerFault(sheet, kind, seed);
    if (kind !== 'sound' && !planted) return setProblem(`This vehicle has no place for ${WORDS[kind]}.`);
    const vehicle = createStandInVehicle(sheet, planted ? [planted] : [], seed);
    const known = new Map(values);
    const read: StandInReading[] = [];
    const add = (test: PowerTest, readId: string, value: number) => {
      known.set(readId, value);
      read.push({ test, readId, value });
    };
    const { tests } = judgePower(sheet, known);
    for (const { test, verdict } of tests) {
      if (read.length >= most) break;
      if (verdict !== 'unread') continue;
      add(test, test.id, vehicle.read(test));
      for (const deviceId of vehicle.listWoken(test)) add(test, toWokenId(test, deviceId), 1);
      if (judgePower(sheet, known).failed.length > 0) break;
    }
    onRead(read);
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Stand-in vehicle" size="md">
      <Stack gap="sm">
        <p style={{ margin: 0 }}>
          A made-up vehicle to learn on: it is read in the order of the sheet until something surprises. Nothing of it is stored, and no
          vehicle is passed with it.
        </p>
        <Select
          label="The vehicle has"
          data={(['sound', ...POWER_FAULTS] as const).map((value) => ({ value, label: WORDS[value] }))}
          value={kind}
          allowDeselect={false}
          onChange={(value) => setKind(value as PowerFaultKind | 'sound')}
        />
        <NumberInput
          label="Seed"
          description="The same seed puts the fault at the same place"
          min={1}
          max={999_999}
          allowDecimal={false}
          value={seed}
          onChange={(value) => setSeed(Math.min(999_999, Math.max(1, Number(value) || 1)))}
        />
        {problem !== '' && <p style={{ margin: 0, color: 'var(--action)' }}>{problem}</p>}
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button variant="default" onClick={() => run(1)}>
            Read the next one
          </Button>
          <Button onClick={() => run(Infinity)}>Read until a surprise</Button>
        </Group>
      </Stack>
    </Modal>
  );
}
