/** How a file says which version it is of. */
import type { VersionMark } from './format-types';

/** “Version 2, frozen 2026-11-09”, or “Draft”: how a file says what it is of. */
export function versionWords(version: Pick<VersionMark, 'number' | 'frozen' | 'at'> | undefined): string {
  if (version === undefined) return 'Draft';
  const day = new Date(version.at).toISOString().slice(0, 10);
  return `Version ${version.number}, ${version.frozen ? 'frozen' : 'kept'} ${day}`;
}
