import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium';

const PORT = 4690;
const baseURL = `http://localhost:${PORT}`;

export default defineConfig({
  testDir: 'tests',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  // tests share nothing: each has its own browser profile
  fullyParallel: true,
  workers: 2,
  retries: 0,
  reporter: [['list']],
  use: {
    actionTimeout: 20_000,
    baseURL,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    // traces take much of the time; TRACE=1 keeps those of failures
    trace: process.env['TRACE'] ? 'retain-on-failure' : 'off',
  },
  webServer: {
    command: 'npm start',
    env: { PORT: String(PORT) },
    url: `${baseURL}/health`,
    reuseExistingServer: false,
  },
});
