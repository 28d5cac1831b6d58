import { Autocomplete, Select, Stack, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { chooseLook, compareIds, createTakenFor, findStandard, fromColourWords, toColourWords } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { Swatch } from '../../ui/Swatch';
import controls from '../../ui/controls.module.css';
import styles from './Ends.module.css';

/** One circuit in a colour of one's own, with the reason for which no scheme may give it another; and which have one. */
export function ColourByHand({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const { job, loom, loomId, plan } = planned;
  const standard = findStandard(job, shop);
  const ids = useMemo(
    () =>
      Object.keys(loom.circuits)
        .filter((id) => loom.circuits[id]!.cable === null)
        .sort(compareIds),
    [loom],
  );
  const takenFor = useMemo(() => createTakenFor(loom, plan, standard), [loom, plan, standard]);
  const [chosenId, setChosen] = useState<string | null>(null);
  const circuitId = chosenId !== null && ids.includes(chosenId) ? chosenId : (ids[0] ?? null);
  const pinned = ids.filter((id) => loom.circuits[id]!.colourPin !== null);
  if (circuitId === null) return <p>No circuit of this loom has a wire of its own.</p>;
  const circuit = loom.circuits[circuitId]!;
  return (
    <Stack gap="xs" mt="sm">
      <Select
        label="Circuit"
        data={ids.map((id) => ({ value: id, label: `${loom.prefix}-${loom.circuits[id]!.number} ${loom.circuits[id]!.name}` }))}
        value={circuitId}
        allowDeselect={false}
        searchable
        onChange={setChosen}
      />
      <Look
        key={circuitId}
        now={toColourWords(circuit.colour)}
        reason={circuit.colourPin?.reason ?? ''}
        stock={standard.colours}
        like={(words) => {
          const look = fromColourWords(words);
          return look ? takenFor(circuitId, look).map((other) => loom.circuits[other]!.name) : [];
        }}
        onClose={onClose}
        onTake={(words, reason) => {
          store.edit(chooseLook(loomId, circuitId, circuit.name, fromColourWords(words)!, reason === '' ? null : reason));
          onClose();
        }}
      />
      {pinned.length > 0 && (
        <section aria-label="Colours with a reason" className={styles.kept}>
          <h3>Not to be changed</h3>
          <ul>
            {pinned.map((id) => {
              const { name, colour, colourPin } = loom.circuits[id]!;
              return (
                <li key={id}>
                  <Swatch colour={colour} /> {name}: {colourPin!.reason}{' '}
                  <button
                    type="button"
                    className={controls.button}
                    aria-label={`Let ${name} go by the scheme`}
                    onClick={() => store.edit(chooseLook(loomId, id, name, colour, null))}
                  >
                    Let it go
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </Stack>
  );
}

function Look({
  now,
  reason: was,
  stock,
  like,
  onClose,
  onTake,
}: {
  now: string;
  reason: string;
  stock: readonly string[];
  /** circuits beside it that it would be taken for */
  like: (words: string) => string[];
  onClose: () => void;
  onTake: (words: string, reason: string) => void;
}) {
  const [words, setWords] = useState(now);
  const [reason, setReason] = useState(was);
  const look = fromColourWords(words);
  const alike = like(words);
  const isChanged = look !== null && (toColourWords(look) !== now || reason.trim() !== was);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (isChanged) onTake(words, reason.trim());
      }}
    >
      <Stack gap="xs">
        <Autocomplete
          label="Colour"
          description="Insulation, a stripe after a slash, bands in brackets from the end on: red/black, white (red blue)"
          data={[...stock]}
          value={words}
          limit={12}
          maxLength={60}
          onChange={setWords}
          error={look === null ? 'expected colours as in red/black or white (red blue)' : null}
        />
        {look && (
          <p>
            <Swatch colour={look} />
            {alike.length > 0 && <b> is taken for {alike.join(', ')} beside it.</b>}
            {alike.length === 0 && ' is taken for none beside it.'}
          </p>
        )}
        <TextInput
          label="Why (empty: a scheme may change it)"
          value={reason}
          maxLength={400}
          onChange={(event) => setReason(event.currentTarget.value)}
        />
      </Stack>
      <DialogEnd onClose={onClose} words="Take this colour" isReady={isChanged} />
    </form>
  );
}
