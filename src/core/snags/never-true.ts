/** Conditions that hold for nobody who gets there, or for everybody. */
import { FALSE } from '../analysis';
import { hasRows } from '../document/answer-types';
import type { DocumentDraft } from '../editing/change';
import { draftOptions, type CheckContext, type Site } from './check-context';
import type { Mend, Snag } from './types';

const WHAT: Record<Site['role'], string> = {
  item: 'ask-if',
  section: 'ask-if',
  option: 'ask-if',
  row: 'ask-if',
  skip: 'skip',
  onward: 'onward',
  quota: 'quota',
};

export function neverTrue(context: CheckContext): Snag[] {
  return context.sites.flatMap((site): Snag[] => {
    const { condition, spots, at, role, text } = site;
    if (condition === null || context.isBroken(at)) return [];
    if (spots.every(({ here }) => here === FALSE)) return [];
    if (context.firstSpot(spots, ({ here, when }) => context.diagrams.and(here, when)) !== null) return [];
    return [
      {
        rule: 'never-true',
        severity: 'warning',
        at,
        field: role === 'skip' || role === 'onward' || role === 'quota' ? 'if' : 'askIf',
        message: `the ${WHAT[role]} “${text}” holds for nobody who gets there: correct it or take it away`,
        mends: [without(context, site)],
      },
    ];
  });
}

export function alwaysTrue(context: CheckContext): Snag[] {
  const { diagrams } = context;
  return context.sites.flatMap((site): Snag[] => {
    const { condition, spots, at, role, text } = site;
    if (condition === null || condition.kind === 'constant' || context.isBroken(at)) return [];
    if (spots.every(({ here }) => here === FALSE)) return [];
    const fails = context.firstSpot(spots, ({ here, when }) => diagrams.and(here, diagrams.not(when)));
    if (fails !== null) return [];
    const leads = role === 'skip' || role === 'onward' || role === 'quota';
    return [
      {
        rule: 'always-true',
        severity: 'note',
        at,
        field: leads ? 'if' : 'askIf',
        message: `the ${WHAT[role]} “${text}” holds for everybody who gets there${
          role === 'quota' ? '' : leads ? ': it can go without a condition' : ': it can be left out'
        }`,
        ...(role === 'quota'
          ? {}
          : { mends: [leads ? unconditional(context, site) : without(context, site)] }),
      },
    ];
  });
}

/** Takes the ask-if away, or the whole skip. */
export function without(context: CheckContext, { role, at, planItem }: Site): Mend {
  const edit = (draft: DocumentDraft) => {
    const section = draft.sections.find(({ id }) => id === at.section);
    const item = planItem === null ? undefined : draft.sections[planItem.section]?.items[planItem.place];
    const routed = item === undefined || item.kind === 'page_break' ? undefined : item;
    switch (role) {
      case 'section':
        if (section !== undefined) delete section.askIf;
        break;
      case 'item':
        if (routed !== undefined) delete routed.askIf;
        break;
      case 'option': {
        const options = routed?.kind === 'question' ? draftOptions(routed.answer) : [];
        const option = options.find(({ code }) => code === at.option);
        if (option !== undefined) delete option.askIf;
        break;
      }
      case 'row': {
        const rows = routed?.kind === 'question' && hasRows(routed.answer) ? routed.answer.rows : [];
        const row = rows.find(({ name }) => name === at.row);
        if (row !== undefined) delete row.askIf;
        break;
      }
      case 'skip':
        routed?.skips?.splice(at.skip ?? 0, 1);
        if (routed?.skips?.length === 0) delete routed.skips;
        break;
      case 'onward':
        if (section !== undefined && Array.isArray(section.onward)) section.onward.splice(at.onward ?? 0, 1);
        else if (section !== undefined) delete section.onward;
        if (Array.isArray(section?.onward) && section.onward.length === 0) delete section.onward;
        break;
      case 'quota': {
        const index = draft.quotas?.findIndex(({ id }) => id === at.quota) ?? -1;
        if (index >= 0) draft.quotas?.splice(index, 1);
        break;
      }
      default:
        role satisfies never;
    }
  };
  const labels: Record<Site['role'], string> = {
    item: `Ask ${at.item ?? ''} of everybody who gets there`,
    section: 'Open the section to everybody who gets there',
    option: `Always show answer ${at.option ?? ''}`,
    row: `Always show row ${at.row ?? ''}`,
    skip: `Delete skip ${(at.skip ?? 0) + 1}`,
    onward: `Delete onward ${(at.onward ?? 0) + 1}`,
    quota: `Delete quota ${at.quota ?? ''}`,
  };
  return context.mendBy(labels[role], edit);
}

function unconditional(context: CheckContext, { role, at, planItem }: Site): Mend {
  return context.mendBy('Lead everybody there', (draft) => {
    if (role === 'onward') {
      const onward = draft.sections.find(({ id }) => id === at.section)?.onward;
      if (Array.isArray(onward) && onward[at.onward ?? 0] !== undefined) delete onward[at.onward ?? 0]?.if;
      return;
    }
    const item = planItem === null ? undefined : draft.sections[planItem.section]?.items[planItem.place];
    if (item === undefined || item.kind === 'page_break') return;
    const skip = item.skips?.[at.skip ?? 0];
    if (skip !== undefined) delete skip.if;
  });
}
