import { defineConfig } from '@playwright/test';
import { storageOf } from './scripts/lib/testPeople.cjs';
import { HEADLESS } from './e2e/chromium';

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.spec.ts',
  // a machine at a third of its speed is slow, not wrong
  timeout: 600_000,
  expect: { timeout: 120_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  retries: 0,
  outputDir: 'test-results',
  reporter: [['list'], ['json', { outputFile: process.env.E2E_REPORT ?? 'test-results/report.json' }]],
  use: {
    baseURL: process.env.E2E_ADDRESS,
    viewport: { width: 1280, height: 800 },
    launchOptions: HEADLESS,
    // signed in as the owner, where a test says nothing else
    storageState: storageOf('imke'),
  },
});
