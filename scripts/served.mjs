/** The built app with the demo studies in a database of its own, and a browser to look at it with. */
import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CHROMIUM_ARGS } from './chromium-args.mjs';
import { ensureBuilt } from './build.mjs';
import { chromium as chromiumPath, environment, root } from './setup.mjs';

/** Both are to be ended by whoever asked for them: `browser.close()`, `server.kill()`. */
export async function served(port) {
  ensureBuilt();
  const { chromium } = await import('@playwright/test');
  const server = spawn('node', ['scripts/demo.mjs', '--fresh'], {
    cwd: root,
    env: {
      ...environment,
      PORT: port,
      JOLLY_FORK_DATA: mkdtempSync(path.join(tmpdir(), 'jolly-fork-served-')),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((resolve, reject) => {
    server.stdout.on('data', (text) => String(text).includes('is ready') && resolve());
    server.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  const browser = await chromium.launch({
    executablePath: chromiumPath(),
    args: CHROMIUM_ARGS,
  });
  return { server, browser };
}
