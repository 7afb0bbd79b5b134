/** What the list of studies shows of each. */
import { analyse } from '../core/analysis';
import { planOf } from '../core/routing/planner';
import { allSnagsOf, snagKey } from '../core/snags';
import { listAsides } from '../store/asides';
import type { Store } from '../store/open';
import { listStudies, type Study } from '../store/studies';
import { listVerdicts } from '../store/verdicts';

export interface StudyCard {
  readonly id: string;
  readonly title: string;
  readonly sections: number;
  readonly items: number;
  readonly skips: number;
  /** How many routes, as a decimal string; a proven lower bound unless `exact`. Null where counting them failed. */
  readonly routes: string | null;
  readonly exact: boolean;
  /** Errors and warnings that were not set aside; null where looking for them failed. */
  readonly snags: number | null;
  readonly passed: number;
  /** Milliseconds since 1970, UTC. */
  readonly changedAt: number;
}

/** `examine` counts and checks one study; it is by itself, so that one study that faults leaves the list whole. */
export function studyCards(db: Store, examine: (study: Study) => Findings = findingsOf): StudyCard[] {
  return listStudies(db).map((study) => {
    const { id, document, changedAt } = study;
    const items = document.sections
      .flatMap((section) => section.items)
      .filter(({ kind }) => kind !== 'page_break');
    const skips = items.reduce((sum, item) => sum + ('skips' in item ? (item.skips?.length ?? 0) : 0), 0);
    const found = withoutFault(study, examine);
    const aside = new Set(listAsides(db, id).map(({ snag }) => snag));
    return {
      id,
      title: document.title,
      sections: document.sections.length,
      items: items.length,
      skips,
      routes: found?.routes ?? null,
      exact: found?.exact ?? false,
      snags: found === null ? null : found.snags.filter((snag) => !aside.has(snag)).length,
      passed: listVerdicts(db, id).filter(({ verdict }) => verdict === 'passed').length,
      changedAt,
    };
  });
}

/** Null where examining it failed, of which the details are in the log. */
function withoutFault(study: Study, examine: (study: Study) => Findings): Findings | null {
  try {
    return examine(study);
  } catch (error) {
    console.error(`Examining the study ${study.id} failed:`, error);
    return null;
  }
}

export interface Findings {
  readonly revision: number;
  readonly routes: string;
  readonly exact: boolean;
  /** Keys of errors and warnings. */
  readonly snags: readonly string[];
}

/** A list should not wait for the one study that is hard: beyond these it says “at least”. */
const CARD_CAPS = { beliefs: 20_000, nodes: 600_000 };
const kept = new Map<string, Findings>();

/** Worked out once for every revision of a study. */
function findingsOf({ id, revision, document }: Study): Findings {
  const known = kept.get(id);
  if (known?.revision === revision) return known;
  const plan = planOf(document);
  const analysis = analyse(plan, CARD_CAPS);
  const snags = allSnagsOf(plan, analysis).filter(({ severity }) => severity !== 'note');
  const found = {
    revision,
    routes: String(analysis.routes),
    exact: analysis.exact,
    snags: snags.map(snagKey),
  };
  kept.set(id, found);
  return found;
}
