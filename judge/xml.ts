/** xmllint: whether the DDI files are XML, and in the order of the standards. */
import { spawnSync } from 'node:child_process';
import { fileOf, type Unpacked } from './package';
import type { Verdict } from './verdict';

export function byXmllint(study: Unpacked): Verdict[] {
  return (['ddi33.xml', 'ddi25.xml'] as const).map((ending) => {
    const schema = ending === 'ddi33.xml' ? 'ddi-lifecycle.rng' : 'ddi-codebook.rng';
    const args = ['--noout', '--nonet', '--relaxng', `tests/schemas/${schema}`, fileOf(study, ending)];
    const { status, stderr } = spawnSync('xmllint', args, { encoding: 'utf8' });
    return {
      file: ending,
      reader: 'xmllint',
      saw: status === 0 ? `sound XML, in the order of ${schema}` : stderr.slice(0, 200),
      ok: status === 0,
    };
  });
}
