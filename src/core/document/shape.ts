/**
 * Shape problems that no single property shows: `min` above `max`, a draw of more than there are.
 *
 * A document with one of these cannot be used at all. Rules about meaning (names, targets, conditions)
 * are snags instead, since a document that breaks them can still be walked.
 */
import { hasRows } from './answer-types';
import { isDateValue } from './dates';
import { MOST_ITEMS, MOST_PASSED } from './limits';
import { MISSING_REASONS, type Answer, type Option, type Questionnaire, type Section } from './types';

/** Where in the document, as keys from the root, and what is wrong there and how to mend it. */
export interface ShapeProblem {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

type ReportProblem = (path: readonly (string | number)[], message: string) => void;

/** None for a document that can be used. The document must fit the schema. */
export function shapeProblems(document: Questionnaire): ShapeProblem[] {
  const problems: ShapeProblem[] = [];
  const report: ReportProblem = (path, message) => problems.push({ path, message });
  missingPlan(document, report);
  document.given?.forEach((given, g) => {
    answer(given.answer, ['given', g, 'answer'], report);
    if (hasRows(given.answer))
      report(
        ['given', g, 'answer', 'type'],
        `"${given.name}" is known beforehand, and so holds one answer: write a given value for each row of the grid`,
      );
  });
  document.sections.forEach((section, s) => sectionShape(section, ['sections', s], report));
  size(document, report);
  if (!document.endings.some((ending) => ending.kind === 'complete')) {
    report(['endings'], 'at least one ending must be of kind "complete"');
  }
  return problems;
}

function size({ sections }: Questionnaire, report: ReportProblem): void {
  let items = 0;
  let passed = 0;
  for (const section of sections) {
    items += section.items.length;
    if (section.repeat !== undefined) passed += section.items.length * section.repeat.max;
  }
  if (items > MOST_ITEMS)
    report(
      ['sections'],
      `the questionnaire has ${items.toLocaleString('en')} items: with more than ${MOST_ITEMS.toLocaleString('en')} it cannot be worked out, so divide it`,
    );
  if (passed > MOST_PASSED)
    report(
      ['sections'],
      `the repeated sections come to ${passed.toLocaleString('en')} items over all their passes: with more than ${MOST_PASSED.toLocaleString('en')} they cannot be worked out, so give "max" nearer limits`,
    );
}

function missingPlan(document: Questionnaire, report: ReportProblem): void {
  const reasons = document.missing.map((entry) => entry.reason);
  for (const reason of MISSING_REASONS) {
    if (!reasons.includes(reason))
      report(['missing'], `the reason "${reason}" has no code: add it to the plan`);
  }
  document.missing.forEach((entry, index) => {
    if (reasons.indexOf(entry.reason) !== index) {
      report(['missing', index, 'reason'], `the reason "${entry.reason}" stands twice`);
    }
    if (document.missing.findIndex((other) => other.code === entry.code) !== index) {
      report(['missing', index, 'code'], `the code ${entry.code} stands for two reasons: give each its own`);
    }
  });
}

function sectionShape(section: Section, path: readonly (string | number)[], report: ReportProblem): void {
  const questions = section.items.filter((item) => item.kind === 'question').length;
  if (section.draw !== undefined && section.draw > questions) {
    report([...path, 'draw'], `draws ${section.draw} of ${questions} questions: draw at most ${questions}`);
  }
  section.items.forEach((item, i) => {
    const at = [...path, 'items', i];
    if (item.kind === 'page_break') return;
    if (section.draw !== undefined && item.askIf !== undefined) {
      report([...at, 'askIf'], `"${item.name}" stands in a section that draws: it can carry no "askIf"`);
    }
    if (section.draw !== undefined && item.skips !== undefined) {
      report([...at, 'skips'], `"${item.name}" stands in a section that draws: it can carry no "skips"`);
    } else if (section.shuffle && item.skips !== undefined) {
      report(
        [...at, 'skips'],
        `"${item.name}" stands in a section that is shuffled: it can carry no "skips"`,
      );
    }
    if (item.kind === 'question') answer(item.answer, [...at, 'answer'], report);
  });
}

function answer(of: Answer, path: readonly (string | number)[], report: ReportProblem): void {
  switch (of.type) {
    case 'single':
      break;
    case 'multiple':
      if (of.minPicks !== undefined && of.maxPicks !== undefined && of.minPicks > of.maxPicks) {
        report([...path, 'minPicks'], `${of.minPicks} is above "maxPicks", ${of.maxPicks}`);
      }
      break;
    case 'scale':
    case 'number':
      if (of.min > of.max) report([...path, 'min'], `${of.min} is above "max", ${of.max}`);
      break;
    case 'text':
      if (of.minLength !== undefined && of.maxLength !== undefined && of.minLength > of.maxLength) {
        report([...path, 'minLength'], `${of.minLength} is above "maxLength", ${of.maxLength}`);
      }
      break;
    case 'date':
    case 'time':
    case 'datetime':
      for (const bound of ['min', 'max'] as const) {
        const value = of[bound];
        if (value !== undefined && !isDateValue(of.type, value)) {
          report([...path, bound], `"${value}" is not a ${of.type} as ISO 8601 writes it`);
        }
      }
      if (of.min !== undefined && of.max !== undefined && of.min > of.max) {
        report([...path, 'min'], `${of.min} is above "max", ${of.max}`);
      }
      break;
    case 'grid':
      break;
    case 'rank':
      if (of.top !== undefined && of.top > of.options.length) {
        report(
          [...path, 'top'],
          `ranks ${of.top} of ${of.options.length} options: rank at most ${of.options.length}`,
        );
      }
      break;
    default:
      of satisfies never;
  }
}

/** The options of an answer, specials included; empty where the type has none. */
export function optionsOf(of: Answer): readonly Option[] {
  switch (of.type) {
    case 'single':
    case 'multiple':
    case 'grid':
    case 'rank':
      return of.options;
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return of.specials ?? [];
    case 'text':
      return [];
    default:
      return of satisfies never;
  }
}
