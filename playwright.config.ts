import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/chromium';

const PORT = 4690;

export default defineConfig({
  testDir: 'tests',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  // tests share nothing: each has its own browser profile
  fullyParallel: true,
  workers: 2,
  retries: 0,
  reporter: [['list']],
  use: { actionTimeout: 20_000, baseURL: `http://localhost:${PORT}`, storageState: { cookies: [], origins: [{ origin: `http://localhost:${PORT}`, localStorage: [{ name: 'jackplane frames ahead', value: 'false' }] }] }, viewport: { width: 1280, height: 800 }, launchOptions: CHROMIUM, trace: 'retain-on-failure' },
  webServer: { command: 'npm start', env: { PORT: String(PORT) }, url: `http://localhost:${PORT}/health`, reuseExistingServer: false },
});
