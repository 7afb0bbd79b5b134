/** Questions that somebody comes to and cannot get past, and endings that have nothing to say to somebody. */
import { FALSE } from '../analysis/diagram';
import type { Inquiry } from './inquiry';
import type { Snag } from './types';

export function stuck(inquiry: Inquiry): Snag[] {
  const { terrain, flow, diagrams } = inquiry;
  return inquiry.items.flatMap((planItem): Snag[] => {
    if (planItem.item.kind !== 'question') return [];
    for (const at of inquiry.placesOf(planItem)) {
      const presented = flow.presentedAt(at);
      if (presented === FALSE) continue;
      const allowed = diagrams.and(terrain.domainAt(at), terrain.itemAt(at).checks);
      const some = diagrams.forget(allowed, (level) => terrain.homeOf(level) === at);
      const caught = diagrams.and(presented, diagrams.not(some));
      if (caught === FALSE) continue;
      return [
        {
          rule: 'stuck',
          severity: 'error',
          at: { item: planItem.item.name },
          message:
            planItem.item.required === true
              ? 'some who come to this have no answer that is allowed, and cannot go on: look at its hard checks, its limits and the answers that are hidden'
              : 'some who come to this cannot go on, whatever they answer: look at its hard checks',
          ...inquiry.witness(at, caught),
        },
      ];
    }
    return [];
  });
}

export function noMessage(inquiry: Inquiry): Snag[] {
  const { terrain, flow, diagrams, plan } = inquiry;
  return plan.endings.flatMap(({ ending }, index): Snag[] => {
    const at = terrain.layout.ending(index);
    const told = terrain.messagesAt(at).reduce((any, each) => diagrams.or(any, each), FALSE);
    const untold = diagrams.and(flow.comesTo(at), diagrams.not(told));
    if (untold === FALSE) return [];
    return [
      {
        rule: 'no-message',
        severity: 'warning',
        at: { ending: ending.id },
        message:
          ending.messages.length === 0
            ? 'those who end here are told nothing: write a message'
            : 'some who end here are told nothing, since none of the messages is for them: add one without a condition',
        ...inquiry.witness(at, untold),
        mends: [
          inquiry.mendBy('Add “Thank you for your time.” for everybody else', (draft) => {
            draft.endings[index]?.messages.push({ text: 'Thank you for your time.' });
          }),
        ],
      },
    ];
  });
}
