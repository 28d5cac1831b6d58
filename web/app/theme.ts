'use client';

import { createTheme, Modal, type MantineColorsTuple } from '@mantine/core';

const sea: MantineColorsTuple = [
  '#e9f5f3',
  '#d3e8e5',
  '#a8d2cc',
  '#7abbb3',
  '#55a79e',
  '#3d9a91',
  '#2c7d79',
  '#236864',
  '#1a534f',
  '#0e3e3b',
];
const flame: MantineColorsTuple = [
  '#ffece6',
  '#fbd8cd',
  '#f3b09d',
  '#ec866a',
  '#e6623f',
  '#e24c24',
  '#c93a1b',
  '#a82e13',
  '#86230d',
  '#641806',
];

/** The library's surfaces in the dark, in the colours of the page: 7 is paper-2, 8 paper. */
const dark: MantineColorsTuple = [
  '#dcdfd8',
  '#c3cbc8',
  '#93a3a4',
  '#75898b',
  '#3b4f55',
  '#31444a',
  '#22343b',
  '#18262c',
  '#101b20',
  '#0a1215',
];

export const theme = createTheme({
  fontFamily: "'Archivo Variable', sans-serif",
  fontFamilyMonospace: "'JetBrains Mono Variable', monospace",
  fontSizes: { xs: '14px', sm: '14px', md: '14px', lg: '16px', xl: '20px' },
  colors: { sea, flame, dark },
  primaryColor: 'sea',
  primaryShade: 6,
  defaultRadius: 2,
  headings: { fontFamily: "'Archivo Variable', sans-serif" },
  components: {
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
  },
});
