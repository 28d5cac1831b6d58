'use client';

import { useMantineColorScheme } from '@mantine/core';
import type { EChartsCoreOption } from 'echarts/core';
import { useEffect, useRef } from 'react';

/** Colours of the page as a chart may use them. */
export interface ChartInk {
  ink: string;
  faint: string;
  hair: string;
  sea: string;
  action: string;
  brass: string;
  paper: string;
}

/** A chart in the page's type and ink; words says in one sentence what it shows, for those who do not see it. */
export function Chart({ words, make, height }: { words: string; make: (ink: ChartInk) => EChartsCoreOption; height: number }) {
  const box = useRef<HTMLDivElement>(null);
  const { colorScheme } = useMantineColorScheme();
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    let chart: { dispose(): void; resize(): void } | null = null;
    let isGone = false;
    const style = getComputedStyle(element);
    const of = (name: string) => style.getPropertyValue(`--${name}`).trim();
    const ink: ChartInk = {
      ink: of('ink'),
      faint: of('ink-2'),
      hair: of('hair'),
      sea: of('sea'),
      action: of('action'),
      brass: of('brass'),
      paper: of('paper'),
    };
    const observer = new ResizeObserver(() => chart?.resize());
    void import('./charts').then(({ echarts }) => {
      if (isGone) return;
      const made = echarts.init(element, null, { renderer: 'svg' });
      made.setOption({
        animation: false,
        textStyle: { fontFamily: style.fontFamily, color: ink.ink, fontSize: 14 },
        ...make(ink),
      });
      chart = made;
      observer.observe(element);
    });
    return () => {
      isGone = true;
      observer.disconnect();
      chart?.dispose();
    };
  }, [make, colorScheme]);
  return <div ref={box} role="img" aria-label={words} style={{ height, width: '100%' }} />;
}
