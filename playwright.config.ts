import { defineConfig } from '@playwright/test';
import { headlessChromium } from './scripts/setup/debian.mjs';

/** The interface in Debian's headless Chromium, against the built application. */
export default defineConfig({
  testDir: 'tests/interface',
  outputDir: '.data/test-results/interface',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: true,
  retries: 0,
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: headlessChromium,
      chromiumSandbox: false,
      args: [
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-quic',
        '--no-first-run',
      ],
    },
  },
});
