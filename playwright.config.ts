import { defineConfig } from '@playwright/test';

/** Files that take minutes: begun with, so that at the end no worker waits for the other. */
const LONG = /(screens|repairs|story)\.spec\.ts$/;

export default defineConfig({
  testDir: 'e2e',
  projects: [
    { name: 'long', testMatch: LONG },
    { name: 'short', testMatch: /\.spec\.ts$/, testIgnore: LONG },
  ],
  fullyParallel: false,
  workers: 2,
  retries: 0,
  // For loaded machines: what is waited for comes when it comes; nothing here is a timed test.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 390, height: 844 },
    // Tests stand between page and server; where the worker is what is tested, it is let in.
    serviceWorkers: 'block',
    // A trace shows a fault step by step, at a fifth more time: asked for where somebody can open it.
    trace: process.env['ZT_TRACE'] ? 'retain-on-failure' : 'off',
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: process.env['ZT_CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
