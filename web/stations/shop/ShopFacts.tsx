'use client';

import { Button, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import styles from './Shop.module.css';

/** What prices are stated in. */
export function Currency({ currency, onChange }: { currency: string | null; onChange: (currency: string | null) => void }) {
  const [typed, setTyped] = useState(currency ?? '');
  const keep = () => {
    const next = typed.trim() === '' ? null : typed.trim();
    if (next !== currency) onChange(next);
  };
  return (
    <TextInput
      label="Currency of the prices"
      maxLength={8}
      w={220}
      placeholder="not stated"
      value={typed}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

/** Whom something can be put to. */
export function People({ people, onChange }: { people: readonly string[]; onChange: (people: string[]) => void }) {
  const form = useForm({
    initialValues: { name: '' },
    validateInputOnChange: true,
    validate: { name: (name) => (people.includes(name.trim()) ? 'is on the list' : name.trim() ? null : 'expected a name') },
  });
  const add = ({ name }: { name: string }) => {
    onChange([...people, name.trim()]);
    form.reset();
  };
  return (
    <form className={styles.people} onSubmit={form.onSubmit(add)}>
      <p className="faint">Whom open items are put to. Who may sign in, and do what, the owner says under People and devices.</p>
      <ul>
        {people.map((person) => (
          <li key={person}>
            {person}
            <button type="button" disabled={people.length === 1} onClick={() => onChange(people.filter((one) => one !== person))}>
              take off the list
            </button>
          </li>
        ))}
      </ul>
      <TextInput label="Another" maxLength={80} {...form.getInputProps('name')} />
      <Button type="submit" mt="xs" variant="default" disabled={!form.isValid()}>
        Add
      </Button>
    </form>
  );
}
