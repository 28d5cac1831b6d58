'use client';

import { Button, PasswordInput, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { toUrl } from '../../client/base';
import { request, RequestError } from '../../client/request';
import styles from '../../ui/accounts/Accounts.module.css';
import { Faces, useFaces } from '../../ui/accounts/Faces';

/** The way in: with digits on a device of the shop, with a name and a password anywhere. */
export function SignInStation({ next, pins }: { next: string; pins: string | null }) {
  const faces = useFaces();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const form = useForm({ initialValues: { username: '', password: '' } });
  // the whole page anew: everything on it is for who is signed in
  const enter = () => window.location.assign(toUrl(next));
  const signIn = form.onSubmit(async (values) => {
    setBusy(true);
    setProblem(null);
    try {
      await request('/api/accounts/sign-in', values);
      enter();
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.message);
    } finally {
      setBusy(false);
    }
  });
  return (
    <main className={styles.page}>
      <h1>Wattograph</h1>
      {faces && faces.length > 0 && (
        <section className={styles.part} aria-label="Who is working">
          <h2>Who is working</h2>
          {pins && <p className="faint">{pins}</p>}
          <Faces faces={faces} onIn={enter} />
        </section>
      )}
      <section className={styles.part} aria-label="With a password">
        <h2>With a password</h2>
        <form onSubmit={signIn}>
          <TextInput label="Sign-in name" autoComplete="username" maxLength={80} {...form.getInputProps('username')} />
          <PasswordInput label="Password" autoComplete="current-password" maxLength={128} {...form.getInputProps('password')} />
          {problem && (
            <p className={styles.wrong} role="alert">
              {problem}
            </p>
          )}
          <Button type="submit" mt="sm" loading={busy} disabled={!form.values.username || !form.values.password}>
            Sign in
          </Button>
        </form>
      </section>
      <p className="faint">
        A code lets you in for the first time, or again when you forgot: <a href={toUrl('/welcome')}>use a code</a>.
      </p>
    </main>
  );
}
