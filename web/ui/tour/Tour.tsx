'use client';

import { Button, Group, Paper, Portal } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { TOUR, TOUR_JOB } from './steps';
import styles from './Tour.module.css';
import { useTour } from './useTour';

const toAddress = (at: string | null) => (at === null ? '/' : `/jobs/${TOUR_JOB}/${at}`);
/** the card stands in a portal, which is there a moment after what makes it */
const focus = (heading: HTMLHeadingElement | null) => heading?.focus({ preventScroll: true });

/** how often the frame looks where its thing is: a page is drawn in parts, and panes are moved, ms */
const LOOK_MS = 250;

/** A card that goes along through the stations of the demo job; it can be left at any step and covers nothing that it speaks of. */
export function Tour() {
  const [state, setState] = useTour();
  if (typeof state !== 'number' || !TOUR[state]) return null;
  return <Card key={state} nth={state} onGo={setState} onLeave={() => setState('left')} />;
}

function Card({ nth, onGo, onLeave }: { nth: number; onGo: (nth: number) => void; onLeave: () => void }) {
  const router = useRouter();
  const step = TOUR[nth]!;
  const go = (to: number) => {
    onGo(to);
    router.push(toAddress(TOUR[to]!.at));
  };
  return (
    <Portal>
      {step.frame !== null && <Frame selector={step.frame} />}
      <Paper
        component="section"
        className={`${styles.card} no-print`}
        aria-label="Tour"
        shadow="md"
        onKeyDown={(event: React.KeyboardEvent) => {
          // keys of the page below are not pressed by who reads this
          event.stopPropagation();
          if (event.key === 'Escape') onLeave();
        }}
      >
        <p className={styles.count}>
          {nth + 1} of {TOUR.length}
        </p>
        <h2 ref={focus} tabIndex={-1}>
          {step.title}
        </h2>
        <p>{step.words}</p>
        <p>
          <b>Try it:</b> {step.attempt}
        </p>
        <Group justify="space-between">
          <Button variant="subtle" size="compact-sm" onClick={onLeave}>
            {nth === TOUR.length - 1 ? 'Done' : 'Leave the tour'}
          </Button>
          <Group gap="xs">
            {nth > 0 && (
              <Button variant="default" size="compact-sm" onClick={() => go(nth - 1)}>
                Back
              </Button>
            )}
            {nth < TOUR.length - 1 && (
              <Button size="compact-sm" onClick={() => go(nth + 1)}>
                Next
              </Button>
            )}
          </Group>
        </Group>
      </Paper>
    </Portal>
  );
}

/** A line round what is spoken of, wherever it is just now. */
function Frame({ selector }: { selector: string }) {
  const [box, setBox] = useState<{ left: number; top: number; width: number; height: number } | null>(null);
  useEffect(() => {
    const look = () => {
      const found = document.querySelector(selector)?.getBoundingClientRect();
      const next = found && { left: found.left, top: found.top, width: found.width, height: found.height };
      setBox((was) => (JSON.stringify(was) === JSON.stringify(next ?? null) ? was : (next ?? null)));
    };
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [selector]);
  return box && <div className={`${styles.frame} no-print`} style={box} aria-hidden />;
}
