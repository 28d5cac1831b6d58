'use client';

import { Button, PasswordInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { toUrl } from '../../client/base';
import { request, RequestError } from '../../client/request';
import type { Problem } from 'wattograph-core';
import { SHORTEST_PASSWORD } from '../../server/accounts/rights';
import { ProblemList } from '../findings/ProblemList';

const USERNAME = /^[A-Za-z0-9._-]{3,30}$/;
const SIGN_IN_WORDS = {
  first: 'for any other device',
  shop: 'only if you also work on a device that is not the shop’s',
  customer: 'with it and the password you come back to this page',
};
const PIN = /^\d{4,8}$/;

interface Values {
  name: string;
  username: string;
  password: string;
  pin: string;
}

/** What one who comes in chooses: digits for the devices of the shop, a password for everywhere else. The first, who owns it, needs both; a customer a password. */
export function ComeIn({ who, path, about }: { who: 'first' | 'shop' | 'customer'; path: string; about: object }) {
  const isFirst = who === 'first';
  const needsPassword = who !== 'shop';
  const [problems, setProblems] = useState<Problem[]>([]);
  const [busy, setBusy] = useState(false);
  const form = useForm<Values>({
    initialValues: { name: '', username: '', password: '', pin: '' },
    validateInputOnBlur: true,
    validate: {
      name: (name) => (isFirst && name.trim().length < 2 ? 'expected a name' : null),
      username: (username) =>
        (needsPassword || username) && !USERNAME.test(username) ? 'expected 3 to 30 letters, digits, dots or dashes' : null,
      password: (password, { username }) =>
        (needsPassword || username || password) && password.length < SHORTEST_PASSWORD
          ? `expected at least ${SHORTEST_PASSWORD} characters`
          : null,
      pin: (pin, { username }) => ((isFirst || (who === 'shop' && !username) || pin) && !PIN.test(pin) ? 'expected 4 to 8 digits' : null),
    },
  });
  const send = form.onSubmit(async ({ name, username, password, pin }) => {
    setBusy(true);
    setProblems([]);
    try {
      const chosen = { username: username || null, password: password || null, pin: pin || null };
      await request(path, { ...about, ...chosen, ...(isFirst ? { name: name.trim() } : {}) });
      window.location.assign(toUrl('/'));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblems(error.problems);
    } finally {
      setBusy(false);
    }
  });
  return (
    <form onSubmit={send}>
      {isFirst && (
        <TextInput
          label="Your name"
          description="it signs what you do"
          maxLength={80}
          autoComplete="name"
          {...form.getInputProps('name')}
        />
      )}
      {who !== 'customer' && (
        <PasswordInput
          label="Digits"
          description="4 to 8, for the devices of the shop"
          inputMode="numeric"
          maxLength={8}
          autoComplete="off"
          {...form.getInputProps('pin')}
        />
      )}
      <TextInput
        label="Sign-in name"
        description={SIGN_IN_WORDS[who]}
        maxLength={30}
        autoComplete="username"
        {...form.getInputProps('username')}
      />
      <PasswordInput label="Password" maxLength={128} autoComplete="new-password" {...form.getInputProps('password')} />
      {problems.length > 0 && <ProblemList title="Not yet" problems={problems} />}
      <Button type="submit" mt="sm" loading={busy}>
        Come in
      </Button>
    </form>
  );
}
