import { Table } from '@mantine/core';
import type { ReactNode } from 'react';
import styles from './DataTable.module.css';

/** A few facts side by side: nothing to sort or to search. */
export const FactTable = ({ label, className, children }: { label?: string; className?: string | undefined; children: ReactNode }) => (
  <Table unstyled className={`${styles.facts} ${className ?? ''}`} aria-label={label}>
    {children}
  </Table>
);
