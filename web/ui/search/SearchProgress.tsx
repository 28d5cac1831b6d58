'use client';

import { Progress } from '@mantine/core';
import controls from '../controls.module.css';
import type { Search } from './useSearch';

/** A search that runs: how far it is, and how to end it. name: what is searched. */
export function SearchProgress({ search, name }: { search: Search; name: string }) {
  const done = search.done ?? 0;
  return (
    <span className={controls.running} role="status" aria-label={`Search of the ${name}`}>
      <Progress value={done * 100} w={110} aria-label="searched" /> {Math.round(done * 100)} %
      <button type="button" className={controls.button} disabled={!search.hasBest} onClick={search.takeBest}>
        Take the best so far
      </button>
      <button type="button" className={controls.button} onClick={search.stop}>
        Cancel
      </button>
    </span>
  );
}
