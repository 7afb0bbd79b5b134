/** Which answers an item allows, and of whom: hidden options cannot be picked, and limits of picks shrink to what is shown. */
import { picksMany } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Option, Question, Value } from '../../document/types';
import { isBlank, refusal } from '../../routing/answers';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';

/** When a value is allowed: its options are shown, and its picks fit the number of options shown. */
export function whenAllowed(
  diagrams: Diagrams,
  question: Question,
  answer: Answer,
  value: Value | null,
  shown: readonly Diagram[],
): Diagram {
  if (value === null || isBlank(value)) return question.required === true ? FALSE : TRUE;
  const options = optionsOf(answer);
  const codes: readonly unknown[] = typeof value === 'object' ? value : [value];
  const picked = options.map(({ code }) => codes.includes(code));
  const visible = picked.reduce(
    (all, isPicked, index) => (isPicked ? diagrams.and(all, shown[index] ?? TRUE) : all),
    TRUE,
  );
  if (visible === FALSE) return FALSE;
  const refusedWith = (isShown: (option: Option, index: number) => boolean) =>
    refusal(question, answer, value, { options: options.map(isShown), rows: [] }) !== null;
  if (!picksMany(answer) || shown.every((when) => when === TRUE)) {
    return refusedWith(() => true) ? FALSE : visible;
  }
  // The limits of picks shrink to the number of ordinary options shown.
  const ordinary = options.map((option) => !option.exclusive && option.missing === undefined);
  let counts: Diagram[] = [TRUE];
  shown.forEach((when, index) => {
    if (!ordinary[index]) return;
    const not = diagrams.not(when);
    counts = [...counts, FALSE].map((before, count) =>
      diagrams.or(diagrams.and(before, not), diagrams.and(counts[count - 1] ?? FALSE, when)),
    );
  });
  const least = ordinary.filter((is, index) => is && picked[index]).length;
  const fitting = counts.reduce((some, when, count) => {
    if (count < least || when === FALSE) return some;
    let others = count - least;
    const isShown = (_: Option, index: number) =>
      picked[index] === true || (ordinary[index] === true && (others -= 1) >= 0);
    return refusedWith(isShown) ? some : diagrams.or(some, when);
  }, FALSE);
  return diagrams.and(visible, fitting);
}
