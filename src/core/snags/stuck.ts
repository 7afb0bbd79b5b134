/** Questions that somebody comes to and cannot get past, and endings that have nothing to say to somebody. */
import { FALSE } from '../analysis';
import type { CheckContext } from './check-context';
import type { Mend, Snag } from './types';

export function stuck(context: CheckContext): Snag[] {
  const { encoded, flow, diagrams } = context;
  return context.items.flatMap((planItem): Snag[] => {
    if (planItem.item.kind !== 'question') return [];
    for (const at of context.placesOf(planItem)) {
      const presented = flow.presentedAt(at);
      if (presented === FALSE) continue;
      const allowed = diagrams.and(encoded.domainAt(at), encoded.itemAt(at).checks);
      const some = diagrams.forget(allowed, (level) => encoded.homeOf(level) === at);
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
          ...context.witness(at, caught),
        },
      ];
    }
    return [];
  });
}

export function noMessage(context: CheckContext): Snag[] {
  const { encoded, flow, diagrams, plan } = context;
  return plan.endings.flatMap(({ ending }, index): Snag[] => {
    const at = encoded.course.ending(index);
    const told = encoded.messagesAt(at).reduce((any, each) => diagrams.or(any, each), FALSE);
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
        ...context.witness(at, untold),
        mends: [
          context.mendBy('Add “Thank you for your time.” for everybody else', (draft) => {
            draft.endings[index]?.messages.push({ text: 'Thank you for your time.' });
          }),
        ],
      },
    ];
  });
}

/** Messages after others that everybody is shown for whom they hold. */
export function messageShadowed(context: CheckContext): Snag[] {
  const { encoded, flow, diagrams, plan } = context;
  return plan.endings.flatMap(({ ending }, index): Snag[] => {
    const at = encoded.course.ending(index);
    const comes = flow.comesTo(at);
    const messages = encoded.messagesAt(at);
    return messages.flatMap((when, n): Snag[] => {
      const meant = diagrams.and(comes, when);
      const before = messages.slice(0, n);
      const told = before.reduce((any, each) => diagrams.or(any, each), FALSE);
      if (meant === FALSE || diagrams.and(meant, diagrams.not(told)) !== FALSE) return [];
      const by = before.findIndex((each) => diagrams.and(meant, diagrams.not(each)) === FALSE);
      const text = ending.messages[n]?.if;
      const whom = text === undefined ? 'everybody' : `those of whom “${text}” is true`;
      const earlier = by < 0 ? 'the messages before it say' : `message ${by + 1} says`;
      return [
        {
          rule: 'message-shadowed',
          severity: 'warning',
          at: { ending: ending.id },
          field: `messages[${n}].text`,
          message: `message ${n + 1} is never shown: ${earlier} something else to ${whom} first`,
          ...context.witness(at, meant),
          mends: [
            text === undefined
              ? withoutMessage(context, index, n)
              : movedUp(context, index, n, Math.max(0, by)),
          ],
        },
      ];
    });
  });
}

function movedUp(context: CheckContext, ending: number, from: number, to: number): Mend {
  return context.mendBy(`Move message ${from + 1} up, before message ${to + 1}`, (draft) => {
    const messages = draft.endings[ending]?.messages;
    const [moved] = messages?.splice(from, 1) ?? [];
    if (moved !== undefined) messages?.splice(to, 0, moved);
  });
}

/** Moved up, a message for everybody would only take the place of the one before. */
function withoutMessage(context: CheckContext, ending: number, at: number): Mend {
  return context.mendBy(`Delete message ${at + 1}`, (draft) => {
    draft.endings[ending]?.messages.splice(at, 1);
  });
}
