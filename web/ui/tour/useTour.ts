'use client';

import { useLocalStorage } from '@mantine/hooks';

/** Where somebody is on the tour: a step, or that it is not taken now. */
export type TourState = number | 'left' | null;

/** Kept at this device, so that a page that is loaded anew goes on where it was. */
export const useTour = () => useLocalStorage<TourState>({ key: 'wattograph.tour', defaultValue: null, getInitialValueInEffect: true });
