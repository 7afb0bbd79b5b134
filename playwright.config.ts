/** Journeys: what a user does, in Debian's Chromium against the built app with a database of its own. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM_ARGS } from './scripts/chromium-args.mjs';

const PORT = Number(process.env.JOURNEYS_PORT ?? 4399);
const TOKEN = 'token-of-the-journeys';
// Read by workers too, which must not each make a folder.
if (process.env.JOURNEYS_DATA === undefined) {
  process.env.JOURNEYS_DATA = mkdtempSync(path.join(tmpdir(), 'jolly-fork-journeys-'));
  writeFileSync(path.join(process.env.JOURNEYS_DATA, 'token'), TOKEN);
}

export default defineConfig({
  testDir: 'tests/journeys',
  testMatch: '*.spec.ts',
  fullyParallel: true,
  workers: 2,
  // What is waited for has come or not: how soon is for the benchmarks, and machines here stand still for a while at times.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    // What a journey asks of the server without a page, it asks as a program does.
    extraHTTPHeaders: { 'x-jolly-fork-token': TOKEN },
    viewport: { width: 1280, height: 800 },
    // Nothing that is pressed or read is waited for longer than what is expected: a journey says where it stands still.
    actionTimeout: 60_000,
    // Keeping a trace of every journey, in case it fails, takes as long as some of them: TRACE=1 asks for it.
    trace: process.env.TRACE === '1' ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: CHROMIUM_ARGS,
    },
  },
  webServer: {
    command: 'node scripts/demo.mjs --fresh',
    env: { PORT: String(PORT), JOLLY_FORK_DATA: process.env.JOURNEYS_DATA },
    url: `http://127.0.0.1:${PORT}/`,
    reuseExistingServer: false,
    timeout: 120_000,
  },
});
