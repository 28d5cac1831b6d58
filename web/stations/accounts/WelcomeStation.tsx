'use client';

import { Button, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { request, RequestError } from '../../client/request';
import { ROLE_WORDS, type Role } from '../../server/accounts/rights';
import styles from '../../ui/accounts/Accounts.module.css';
import { ComeIn } from '../../ui/accounts/ComeIn';

interface Invited {
  name: string;
  role: Role;
  isAgain: boolean;
}

/** Comes in with a code: somebody new, or who forgot. */
export function WelcomeStation({ code: given }: { code: string }) {
  const [code, setCode] = useState(given);
  const [invited, setInvited] = useState<Invited | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = (wanted: string) =>
    request<Invited>(`/api/accounts/invites/accept?code=${encodeURIComponent(wanted)}`).then(setInvited, (error: unknown) => {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.problems[0]?.message ?? error.message);
    });
  useEffect(() => {
    if (given) void ask(given);
  }, [given]);
  return (
    <main className={styles.page}>
      <h1>{invited ? `Welcome${invited.isAgain ? ' back' : ''}, ${invited.name}` : 'Come in with a code'}</h1>
      {!invited && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            setProblem(null);
            void ask(code);
          }}
        >
          <TextInput
            label="Code"
            placeholder="XXXX-XXXX-XXXX"
            maxLength={40}
            value={code}
            onChange={(event) => setCode(event.currentTarget.value)}
          />
          {problem && (
            <p className={styles.wrong} role="alert">
              {problem}
            </p>
          )}
          <Button type="submit" mt="sm" disabled={code.trim().length < 8}>
            Go on
          </Button>
        </form>
      )}
      {invited && (
        <section className={styles.part}>
          <p style={{ margin: 0 }}>
            You come in as {invited.role}: {ROLE_WORDS[invited.role]}.
          </p>
          <ComeIn who={invited.role === 'customer' ? 'customer' : 'shop'} path="/api/accounts/invites/accept" about={{ code }} />
        </section>
      )}
    </main>
  );
}
