/** What the list of studies shows of each. */
import { planOf } from '../core/routing/planner';
import { snagsOf } from '../core/snags';
import type { Store } from '../store/open';
import { listStudies } from '../store/studies';
import { listVerdicts } from '../store/verdicts';

export interface StudyCard {
  readonly id: string;
  readonly title: string;
  readonly sections: number;
  readonly items: number;
  readonly skips: number;
  readonly snags: number;
  readonly passed: number;
  /** Milliseconds since 1970, UTC. */
  readonly changedAt: number;
}

export function studyCards(db: Store): StudyCard[] {
  return listStudies(db).map(({ id, document, changedAt }) => {
    const items = document.sections
      .flatMap((section) => section.items)
      .filter(({ kind }) => kind !== 'page_break');
    const skips = items.reduce((sum, item) => sum + ('skips' in item ? (item.skips?.length ?? 0) : 0), 0);
    return {
      id,
      title: document.title,
      sections: document.sections.length,
      items: items.length,
      skips,
      snags: snagsOf(planOf(document)).length,
      passed: listVerdicts(db, id).filter(({ verdict }) => verdict === 'passed').length,
      changedAt,
    };
  });
}
