import { Autocomplete, Button, Group, Select, Textarea, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  checkFamily,
  compareIds,
  findCavitySize,
  fromCavityWords,
  fromSpotList,
  listCavities,
  placeCavities,
  type ConnectorFamily,
  type Problem,
  type Shop,
  measureLeastPitch,
} from 'wattograph-core';
import { FacePicture } from '../../ui/FacePicture';
import styles from './Shop.module.css';

type Counted = 'rings' | 'rows';
const KINDS = [
  { value: 'rings', label: 'rings' },
  { value: 'rows', label: 'rows' },
  { value: 'spots', label: 'spots of their own' },
];
const toFixed = (mm: number) => Math.round(mm * 100) / 100;
const listCounts = ({ arrangement }: ConnectorFamily): number[] | null =>
  arrangement.kind === 'rings' ? arrangement.rings : arrangement.kind === 'rows' ? arrangement.rows : null;

/** The face of a housing: where its cavities are, what each is called, which size it takes. Cavities are picked and moved on it. */
export function FamilyFace({
  shop,
  family,
  onChange,
}: {
  shop: Shop;
  family: ConnectorFamily;
  onChange: (family: ConnectorFamily) => void;
}) {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const { arrangement } = family;
  const names = listCavities(family);
  const known = [...picked].filter((cavity) => names.includes(cavity));
  const problems = checkFamily(family, '');
  const sizes = [
    ...new Set([...shop.contacts.map(({ cavitySize }) => cavitySize), family.cavitySize, ...Object.values(family.otherSizes)]),
  ].sort(compareIds);
  const arrange = (kind: string) => {
    if (kind === arrangement.kind) return;
    if (kind !== 'spots')
      return onChange({
        ...family,
        arrangement: kind === 'rings' ? { kind, rings: [names.length] } : { kind: 'rows', rows: [names.length] },
      });
    const spots = placeCavities(family).map(({ x, y }) => ({ xMm: toFixed(x), yMm: toFixed(y) }));
    // a hundredth lost in rounding must not make two of them too near
    onChange({
      ...family,
      pitchMm: Math.min(family.pitchMm, Math.floor(measureLeastPitch(spots) * 100) / 100 || family.pitchMm),
      arrangement: { kind: 'spots', round: arrangement.kind === 'rings', spots },
    });
  };
  const setSize = (size: string) => {
    const rest = Object.entries(family.otherSizes).filter(([cavity]) => !known.includes(cavity));
    const set = size === family.cavitySize ? [] : known.map((cavity) => [cavity, size] as const);
    onChange({ ...family, otherSizes: Object.fromEntries([...rest, ...set]) });
  };
  const move = (cavity: string, xMm: number, yMm: number) => {
    if (arrangement.kind !== 'spots') return;
    const spots = arrangement.spots.map((spot, at) => (names[at] === cavity ? { xMm, yMm } : spot));
    onChange({ ...family, arrangement: { ...arrangement, spots } });
  };
  const pick = (cavity: string, together: boolean) =>
    setPicked((now) =>
      together ? new Set(now.has(cavity) ? [...now].filter((one) => one !== cavity) : [...now, cavity]) : new Set([cavity]),
    );
  const pickedSizes = [...new Set(known.map((cavity) => findCavitySize(family, cavity)))];
  return (
    <div className={styles.face}>
      <div>
        <Select
          label="cavities in"
          data={KINDS}
          value={arrangement.kind}
          allowDeselect={false}
          onChange={(kind) => kind && arrange(kind)}
        />
        {arrangement.kind === 'spots' ? (
          <SpotList key={JSON.stringify([arrangement, family.cavityNames, family.otherSizes])} family={family} onChange={onChange} />
        ) : (
          <Counts key={arrangement.kind} kind={arrangement.kind} family={family} onChange={onChange} />
        )}
        <Names key={JSON.stringify(family.cavityNames)} family={family} onChange={onChange} />
        <Group grow align="end" gap="xs">
          <Size
            key={`all ${family.cavitySize}`}
            label="size of most"
            sizes={sizes}
            value={family.cavitySize}
            onChange={(cavitySize) => onChange(withSize(family, cavitySize))}
          />
          {known.length > 0 && (
            <Size
              key={known.join()}
              label={known.length === 1 ? `size of ${known[0]}` : `size of ${known.length} picked`}
              sizes={sizes}
              value={pickedSizes.length === 1 ? pickedSizes[0]! : ''}
              onChange={setSize}
            />
          )}
        </Group>
        {problems.length > 0 && (
          <ul className={styles.wrong} role="alert">
            {problems.slice(0, 4).map(({ path, message }) => (
              <li key={path}>{message}</li>
            ))}
          </ul>
        )}
      </div>
      <div>
        <FacePicture
          family={problems.length > 0 && problems[0]!.path === '/cavityNames' ? { ...family, cavityNames: null, otherSizes: {} } : family}
          side="wire"
          colourAt={() => null}
          handles={{ picked, onPick: pick, onMove: arrangement.kind === 'spots' ? move : null }}
        />
        <p className="faint">
          wire side ·{' '}
          {arrangement.kind === 'spots' ? 'drag a cavity, or move it by 0.1 mm with the arrows' : 'pick cavities to give them another size'}
          , shift picks more
        </p>
      </div>
    </div>
  );
}

/** The size of most changed: cavities that had the new one by exception have it by rule. */
const withSize = (family: ConnectorFamily, cavitySize: string): ConnectorFamily => ({
  ...family,
  cavitySize,
  otherSizes: Object.fromEntries(Object.entries(family.otherSizes).filter(([, size]) => size !== cavitySize)),
});

function Counts({ kind, family, onChange }: { kind: Counted; family: ConnectorFamily; onChange: (family: ConnectorFamily) => void }) {
  const counts = listCounts(family)!.join(', ');
  const [typed, setTyped] = useState(counts);
  const numbers = typed.split(/[\s,;]+/).flatMap((one) => (one === '' ? [] : [Number(one)]));
  const isGood =
    numbers.length > 0 && numbers.length <= 8 && numbers.every((count) => Number.isInteger(count) && count >= 1 && count <= 40);
  const keep = () => {
    if (isGood && typed !== counts)
      onChange({ ...family, arrangement: kind === 'rings' ? { kind, rings: numbers } : { kind, rows: numbers } });
  };
  return (
    <TextInput
      label={kind === 'rings' ? 'in each ring, inside first' : 'in each row, top first'}
      value={typed}
      error={isGood ? null : 'expected counts of 1 to 40, as in 1, 6, 12'}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

function Names({ family, onChange }: { family: ConnectorFamily; onChange: (family: ConnectorFamily) => void }) {
  const now = family.cavityNames?.join(' ') ?? '';
  const [typed, setTyped] = useState(now);
  const [problem, setProblem] = useState<string | null>(null);
  const keep = () => {
    if (typed.trim() === now) return setProblem(null);
    if (typed.trim() === '') return onChange({ ...family, cavityNames: null, otherSizes: rename(family, null) });
    const read = fromCavityWords(typed);
    if (!read.ok) return setProblem(read.problems[0]!.message);
    setProblem(null);
    onChange({ ...family, cavityNames: read.value, otherSizes: rename(family, read.value) });
  };
  return (
    <TextInput
      label="names, in that order"
      description="as in “A to Z without I, O, Q then a to c”; empty: counted from 1"
      placeholder="counted from 1"
      value={typed}
      error={problem}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

/** Sizes stay with the place of their cavity when its name changes. */
function rename(family: ConnectorFamily, names: readonly string[] | null): Record<string, string> {
  const before = listCavities(family);
  const after = names ?? before.map((_, at) => String(at + 1));
  return Object.fromEntries(
    before.flatMap((cavity, at) => {
      const next = after[at];
      return Object.hasOwn(family.otherSizes, cavity) && next !== undefined ? [[next, family.otherSizes[cavity]!]] : [];
    }),
  );
}

function Size({ label, sizes, value, onChange }: { label: string; sizes: string[]; value: string; onChange: (size: string) => void }) {
  const [typed, setTyped] = useState(value);
  const [isOpen, setOpen] = useState(false);
  const keep = (size: string) => {
    const next = size.trim().slice(0, 12);
    setOpen(false);
    if (next !== '' && next !== value) onChange(next);
  };
  return (
    <Autocomplete
      label={label}
      data={sizes}
      value={typed}
      placeholder="several"
      dropdownOpened={isOpen}
      onDropdownOpen={() => setOpen(true)}
      onDropdownClose={() => setOpen(false)}
      onChange={setTyped}
      onOptionSubmit={keep}
      onBlur={() => keep(typed)}
      onKeyDown={(event) => event.key === 'Enter' && keep(typed)}
    />
  );
}

/** Spots as a table that can be typed or pasted from a spreadsheet: name, x, y, size. */
function SpotList({ family, onChange }: { family: ConnectorFamily; onChange: (family: ConnectorFamily) => void }) {
  const now = placeCavities(family)
    .map(({ cavity, x, y }) => [cavity, toFixed(x), toFixed(y), findCavitySize(family, cavity)].join('\t'))
    .join('\n');
  const [typed, setTyped] = useState(now);
  const [problems, setProblems] = useState<Problem[]>([]);
  const round = family.arrangement.kind === 'spots' && family.arrangement.round;
  const take = () => {
    const read = fromSpotList(typed);
    if (!read.ok) return setProblems(read.problems);
    setProblems([]);
    onChange({
      ...family,
      arrangement: { kind: 'spots', round, spots: read.value.map(({ xMm, yMm }) => ({ xMm, yMm })) },
      cavityNames: read.value.map(({ name }) => name),
      otherSizes: Object.fromEntries(
        read.value.flatMap(({ name, size }) => (size === null || size === family.cavitySize ? [] : [[name, size] as const])),
      ),
    });
  };
  return (
    <>
      <Select
        label="outline"
        data={['round', 'rectangle']}
        value={round ? 'round' : 'rectangle'}
        allowDeselect={false}
        onChange={(value) =>
          family.arrangement.kind === 'spots' && onChange({ ...family, arrangement: { ...family.arrangement, round: value === 'round' } })
        }
      />
      <Textarea
        label="name, x, y, size"
        description="a row each, mm from the middle, wire side; paste it from a spreadsheet"
        autosize
        minRows={4}
        maxRows={8}
        styles={{ input: { fontFamily: 'var(--mono)', fontSize: 12.5 } }}
        value={typed}
        error={
          problems.length > 0
            ? problems
                .map(({ path, message }) => `${path}: ${message}`)
                .slice(0, 3)
                .join('; ')
            : null
        }
        onChange={(event) => setTyped(event.currentTarget.value)}
      />
      {typed !== now && (
        <Button size="compact-sm" variant="default" onClick={take}>
          Place them so
        </Button>
      )}
    </>
  );
}
