/** Sets a machine up: packages by npm, Chromium by Debian's package manager. Needs nothing but Node. */
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = path.join(path.dirname(fileURLToPath(import.meta.url)), '..');

/** Astro would otherwise call home; set for every command started from here. */
export const environment = {
  ...process.env,
  ASTRO_TELEMETRY_DISABLED: '1',
  ASTRO_DISABLE_UPDATE_CHECK: 'true',
};

/** Runs a command with its output on ours; ends this process where it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: environment, ...options });
  if (result.error) {
    console.error(`${command} could not be started: ${result.error.message}`);
    process.exit(1);
  }
  if (result.status !== 0) process.exit(result.status ?? 1);
}

/** Runs commands side by side, each told whole under its title once it has ended; ends this process where one fails. */
export async function runTogether(commands) {
  const ended = commands.map(
    ([title, command, args]) =>
      new Promise((resolve) => {
        const child = spawn(command, args, {
          cwd: root,
          env: environment,
          stdio: ['ignore', 'pipe', 'pipe'],
        });
        let text = '';
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (text += piece));
        child.on('error', (error) => resolve({ title, text: error.message, status: 1 }));
        child.on('close', (status) => resolve({ title, text, status: status ?? 1 }));
      }),
  );
  let worst = 0;
  for (const { title, text, status } of await Promise.all(ended)) {
    console.log(`\n— ${title}\n${text}`);
    worst ||= status;
  }
  if (worst !== 0) process.exit(worst);
}

/** Installs the packages of the lock file, unless that was done before. Messages go to standard error. */
export function install() {
  if (isInstalled()) return;
  npmCi();
  markInstalled();
}

/**
 * Puts the packages of the lock file in place, and gives what is left to run (nothing, where all was done before): what is
 * compiled for this machine takes a processor for minutes, beside which others can do their work.
 */
export function unpack() {
  if (isInstalled()) return [];
  npmCi('--ignore-scripts');
  const compile = "import('./scripts/setup.mjs').then(({ compile }) => compile())";
  return [['packages made for this machine', 'node', ['-e', compile]]];
}

/** The rest of `unpack`, in a process of its own. */
export function compile() {
  run('npm', ['rebuild', '--silent'], { env: FOR_NPM });
  markInstalled();
}

/** Nothing is left to be installed, until the lock file or Node changes. */
function markInstalled() {
  writeFileSync(STAMP, stamp());
}

const FOR_NPM = { ...environment, ...headersBeside(), JOBS: '2', npm_config_loglevel: 'error' };
const STAMP = path.join(root, 'node_modules', '.jolly-fork-lock');

function stamp() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  return `${lock} ${process.versions.modules}`;
}

function isInstalled() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 11)) {
    console.error(`Node ${process.versions.node} is too old: install Node 20.11 or newer.`);
    process.exit(1);
  }
  return existsSync(STAMP) && readFileSync(STAMP, 'utf8') === stamp();
}

function npmCi(...options) {
  console.error('Installing packages (the first time this takes some minutes) …');
  run('npm', ['ci', '--no-audit', '--no-fund', ...options], {
    env: FOR_NPM,
    stdio: ['ignore', process.stderr, process.stderr],
  });
}

/** Where Node's headers stand beside it, the native build takes those instead of loading them. */
function headersBeside() {
  const folder = path.join(path.dirname(process.execPath), '..');
  return existsSync(path.join(folder, 'include', 'node', 'node.h')) ? { npm_config_nodedir: folder } : {};
}

/** Chromium's path, installing Debian's package where there is none. */
export function chromium() {
  const known = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'];
  const found = () => known.find((file) => file && existsSync(file));
  if (found()) return found();
  console.error("Installing Chromium from Debian's packages …");
  const root_ = process.getuid?.() === 0;
  const apt = (args) =>
    run(root_ ? 'apt-get' : 'sudo', root_ ? args : ['apt-get', ...args], {
      env: { ...environment, DEBIAN_FRONTEND: 'noninteractive' },
      stdio: ['ignore', process.stderr, process.stderr],
    });
  apt(['update', '-qq']);
  apt(['install', '-y', '-qq', '--no-install-recommends', 'chromium']);
  const path_ = found();
  if (!path_) {
    console.error(
      'Chromium is still missing: install the Debian package "chromium", or name its program in CHROMIUM.',
    );
    process.exit(1);
  }
  return path_;
}
