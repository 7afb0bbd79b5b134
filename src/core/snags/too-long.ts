/** Routes that take longer than the study allows an interview. */
import { secondsAlong, secondsByName } from '../routing/burden';
import { madeUpRespondents } from '../simulate/respondents';
import type { CheckContext } from './check-context';
import type { Snag } from './types';

/** Made-up respondents who tell how many take too long. */
const PEOPLE = 2000;

export function tooLong({ plan, analysis }: CheckContext): Snag[] {
  const { maxMinutes } = plan.document.settings ?? {};
  if (maxMinutes === undefined) return [];
  const seconds = secondsByName(plan);
  const slowest = analysis.slowest(seconds);
  if (slowest === null || slowest.seconds <= maxMinutes * 60) return [];
  const route = analysis.route(slowest.number);
  if (route === null) return [];
  const { number: _, ...witness } = route;
  let over = 0;
  for (const { presented } of madeUpRespondents(plan, PEOPLE, 1)) {
    if (secondsAlong(seconds, presented) > maxMinutes * 60) over += 1;
  }
  const share =
    over === 0
      ? 'fewer than 1 in 100 respondents'
      : `about ${Math.max(1, Math.round((100 * over) / PEOPLE))} in 100 respondents`;
  return [
    {
      rule: 'too-long',
      severity: 'note',
      at: { ending: route.ending },
      message: `routes to here take up to ${Math.ceil(slowest.seconds / 60)} minutes, over the limit of ${maxMinutes}: by the assumed answers ${share} take longer than that, so shorten what they meet or raise the limit`,
      witness,
    },
  ];
}
