/**
 * `npm run judge-files`: programs of other houses read every file of the demo's package, and what each saw goes into
 * docs/files.md. Installs them first: R, LibreOffice, libxml2 and poppler from Debian, others from their own lock file.
 */
import { spawnSync } from 'node:child_process';
import { bundledApart, installApart } from './apart.mjs';
import { install, root, run } from './setup.mjs';

/** What is called, and the Debian packages that have it. */
const PROGRAMS = [
  ['Rscript', 'r-base-core r-cran-xml2'],
  ['soffice', 'libreoffice-writer libreoffice-calc'],
  ['xmllint', 'libxml2-utils'],
  ['pdftotext', 'poppler-utils'],
  ['unzip', 'unzip'],
];

install();
const lacking = PROGRAMS.filter(([program]) => spawnSync('which', [program]).status !== 0).flatMap(
  ([, packages]) => packages.split(' '),
);
if (lacking.length > 0) {
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...lacking]);
}
installApart('judge');
run('node', [await bundledApart('judge', 'run.ts')], { cwd: root });
