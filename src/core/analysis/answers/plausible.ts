/** An answer somebody could well give, for questions whose answer does not matter to the routing. */
import type { Answer, Question, Value } from '../../document/types';
import { pickLimits, refusal, type ShownParts } from '../../routing/answers';
import { plausibleMoment, plausibleTexts } from './candidates';

/** Null where nothing but a blank is left. */
export function plausibleAnswer(question: Question, answer: Answer, shown: ShownParts): Value | null {
  return offers(answer, shown).find((value) => refusal(question, answer, value, shown) === null) ?? null;
}

function offers(answer: Answer, shown: ShownParts): Value[] {
  switch (answer.type) {
    case 'single':
      return answer.options.filter((option) => option.missing === undefined).map(({ code }) => code);
    case 'multiple': {
      const ordinary = answer.options.filter(
        (option, o) => shown.options[o] && !option.exclusive && option.missing === undefined,
      );
      const { least } = pickLimits(answer, shown);
      const picked = ordinary.slice(0, Math.max(1, least)).map(({ code }) => code);
      return [picked, ...answer.options.map(({ code }) => [code])].filter((codes) => codes.length > 0);
    }
    case 'rank':
      return [
        answer.options
          .filter((option, o) => shown.options[o] && option.missing === undefined)
          .slice(0, answer.top)
          .map(({ code }) => code),
      ];
    case 'scale':
    case 'number': {
      const step = 'step' in answer ? (answer.step ?? 1) : 1;
      const middle = answer.min + Math.round((answer.max - answer.min) / 2 / step) * step;
      return [middle, Math.round(middle), answer.min, answer.max];
    }
    case 'text':
      return plausibleTexts(answer);
    case 'date':
    case 'time':
    case 'datetime':
      return [plausibleMoment(answer), ...(answer.min ? [answer.min] : [])];
    case 'grid':
      return [];
    default:
      return answer satisfies never;
  }
}
