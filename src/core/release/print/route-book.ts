/** The route book: few routes that take every fork between them, each as a sentence, with what it asks and where it ends. */
import type { Analysis } from '../../analysis';
import { nameInKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import { numbersOf } from '../../views/paper-words';
import { routeSentence } from '../../views/route-sentence';
import { endingLabel } from '../../wording/targets';
import { testPack } from '../test-pack';
import { markedRuns } from './marked';
import { bold, code, heading, plain, textOf, type Block, type Pages, type Runs } from './pages';

export function routeBookPages(plan: Plan, analysis: Analysis, version: string): Pages {
  const { document } = plan;
  const { routes, complete } = analysis.cover;
  const numbers = numbersOf(plan);
  const steps = new Map(testPack(plan, analysis).respondents.map((each) => [each.route, each.steps]));
  const all = analysis.routes.toLocaleString('en');
  return {
    title: document.title,
    what: 'route book',
    language: document.language,
    version,
    blocks: [
      textOf(
        plain(
          `${routes.length} of ${analysis.exact ? '' : 'at least '}${all} routes, which take every fork between them${
            complete ? '' : ' as far as could be worked out: the forks are too many to be sure of all of them'
          }. Each is told by who takes it, what they are asked, and where they end.`,
        ),
      ),
      ...routes.flatMap((route, n): Block[] => [
        heading(
          2,
          `Route ${route.number.toLocaleString('en')}: ${endingLabel(document, route.ending)}`,
          n > 0,
        ),
        textOf([
          ...routeSentence(plan, route).map(({ text, answer }) =>
            answer ? { text, bold: true as const } : { text },
          ),
          ...plain('.'),
        ]),
        {
          is: 'table',
          head: ['', 'Name', 'What is shown', 'Answer'],
          widths: [8, 20, 46, 26],
          rows: (steps.get(route.number) ?? []).map(({ step, item, shows, answer, words }): Runs[] => [
            bold(numbers.get(nameInKey(item).toLowerCase()) ?? (step === 0 ? 'before' : '')),
            code(item),
            markedRuns(shows),
            plain(words === '' ? answer : words),
          ]),
        },
      ]),
    ],
  };
}
