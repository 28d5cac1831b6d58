'use client';

import { TextInput } from '@mantine/core';
import { useState } from 'react';
import styles from '../../ui/accounts/Accounts.module.css';
import { ComeIn } from '../../ui/accounts/ComeIn';

/** The first visit: whoever has the code from the start makes the account that owns this installation. */
export function SetUpStation() {
  const [code, setCode] = useState('');
  return (
    <main className={styles.page}>
      <h1>Set Wattograph up</h1>
      <p style={{ margin: 0 }}>
        Nobody works here yet. The start of Wattograph has printed a code in its window (or its log): it shows that this machine is yours.
        You then own this installation and let the others in.
      </p>
      <section className={styles.part}>
        <TextInput
          label="Code from the start"
          placeholder="XXXX-XXXX-XXXX"
          maxLength={40}
          value={code}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
        <ComeIn who="first" path="/api/accounts/set-up" about={{ code }} />
      </section>
    </main>
  );
}
