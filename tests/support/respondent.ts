/** Short ways to answer as a respondent's page does. */
import { passKey } from '../../src/core/document/addresses';
import type { Answers } from '../../src/core/document/types';
import { inputsOf } from '../../src/core/responding/kept-case';
import { followed } from '../../src/core/responding/session';
import type { Kept } from '../../src/respondent/keeping';
import type { Sitter } from '../../src/respondent/sitter';

/** What a browser keeps, for as long as it is held. */
export function storage(): Kept {
  const kept = new Map<string, string>();
  return {
    getItem: (name) => kept.get(name) ?? null,
    setItem: (name, value) => void kept.set(name, value),
    removeItem: (name) => void kept.delete(name),
  };
}

/** Puts the answers of somebody to what the page in hand asks, as they come up. */
export function fill(sitter: Sitter, answers: Answers): void {
  for (let again = true; again;) {
    again = false;
    const shown = sitter.shown();
    if (shown === null) return;
    const now = { ...shown.kept.answers, ...sitter.get().draft?.answers };
    const { pages } = followed(shown.plan, { answers: now, inputs: inputsOf(shown.kept) });
    for (const { parts, pass } of pages[shown.kept.at]?.steps ?? [])
      for (const { name } of parts) {
        const texts = Object.keys(answers).filter(
          (key) => key.startsWith(`${name}_`) && key.endsWith(passKey('_text', pass)),
        );
        for (const key of [passKey(name, pass), ...texts]) {
          const value = answers[key] ?? null;
          if (JSON.stringify(now[key] ?? null) === JSON.stringify(value)) continue;
          sitter.answer(key, value);
          again = true;
        }
      }
  }
}
