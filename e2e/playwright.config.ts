import { defineConfig } from '@playwright/test';
import { CHROMIUM_FLAGS } from '../tools/served.mjs';

export default defineConfig({
  testDir: 'tests',
  // Time is no fault of a story: on a busy machine one takes three times as long. These end what hangs.
  timeout: 200_000,
  expect: { timeout: 20_000 },
  workers: 4,
  fullyParallel: true,
  forbidOnly: !!process.env['CI'],
  reporter: 'list',
  use: {
    // What does not come in a minute does not come.
    actionTimeout: 60_000,
    navigationTimeout: 60_000,
    locale: 'en-GB',
    // Nothing is waited for while it slides in.
    contextOptions: { reducedMotion: 'reduce' },
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium', args: CHROMIUM_FLAGS },
    screenshot: 'only-on-failure',
  },
});
