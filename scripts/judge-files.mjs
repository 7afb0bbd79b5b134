/**
 * `npm run judge-files`: programs of other houses read every file of the demo's package, and what each saw goes into
 * docs/files.md. Installs them first: R, LibreOffice, graphviz, libxml2 and poppler from Debian, others from their own lock file.
 */
import { spawnSync } from 'node:child_process';
import { bundledApart, installApart } from './apart.mjs';
import { install, root, run } from './setup.mjs';

/** Of Debian. */
const PACKAGES = [
  ...[
    'r-base-core',
    'r-cran-xml2',
    'r-cran-igraph',
    'r-cran-png',
    'graphviz',
    'libxml2-utils',
    'poppler-utils',
  ],
  ...['libreoffice-writer', 'libreoffice-calc', 'unzip'],
];

install();
const lacking = PACKAGES.filter((name) => spawnSync('dpkg', ['-s', name]).status !== 0);
if (lacking.length > 0) {
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...lacking]);
}
installApart('judge');
run('node', [await bundledApart('judge', 'run.ts')], { cwd: root });
