/** `jolly-fork compare OLD NEW`: what is other in a version than in an earlier one, the routes first. */
import type { Questionnaire } from '../../core/document/types';
import { compareVersions, routesDiffer, type Comparison } from '../../core/release/compare';
import { comparisonReport } from '../../core/release/report';
import { readFiles, readQuestionnaire } from '../files';

/** 1 where routes differ, for checks of a researcher's own. */
export function command(args: readonly string[]): number {
  const { files, values } = readFiles(
    args,
    2,
    'two questionnaire files are needed, like old.fork.json new.fork.json',
  );
  const [old, now] = files.map(readQuestionnaire) as [Questionnaire, Questionnaire];
  const found = compareVersions(old, now);
  process.stdout.write(
    values.json
      ? `${JSON.stringify(asJson(found), null, 2)}\n`
      : `${comparisonReport(old, now, found).join('\n')}\n`,
  );
  return routesDiffer(found) ? 1 : 0;
}

function asJson({ routes, bases, items, words, codes, conditions, endings, breaks }: Comparison) {
  const count = (routes: bigint | null) => (routes === null ? null : String(routes));
  return {
    routes: {
      old: count(routes.old),
      new: count(routes.now),
      lost: count(routes.lost),
      gained: count(routes.gained),
      changed: count(routes.changed),
      share: routes.share,
      exact: routes.exact,
    },
    bases: bases.map(({ name, old, now }) => ({ name, old, new: now })),
    items: { added: items.added, gone: items.gone, renamed: items.renamed, moved: items.moved },
    words: words.map(({ at, part, old, now }) => ({ at, part, old, new: now })),
    codes: codes.map(({ name, code, old, now }) => ({ name, code, old, new: now })),
    conditions: conditions.map(({ at, part, old, now }) => ({ at, part, old, new: now })),
    endings,
    breaks: breaks.map(({ name, why }) => ({ name, why })),
  };
}
