/** Chance in a walk: which questions a section draws, and given values that are drawn at the start. */
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { passKey, readPassKey } from '../document/addresses';
import { isNumeric, picksMany } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Given, Value } from '../document/types';
import { generatorFor } from './chance';
import type { Plan, PlanSection } from './plan';

/** Key of a section's draw in `draws`: its id, with `#pass` in a repeat. */
export function drawKey(section: PlanSection, pass: number): string {
  return passKey(section.section.id, section.repeat === null ? null : pass);
}

/** Indices of the section's questions among its plan items. */
export function questionIndices(section: PlanSection): number[] {
  return section.items.filter(({ item }) => item.kind === 'question').map(({ index }) => index);
}

/** Draws n of a section's questions, all sets equally likely. */
export function drawQuestions(section: PlanSection, pass: number, seed: number): ReadonlySet<number> {
  const pool = questionIndices(section);
  const wanted = section.section.draw ?? pool.length;
  const random = generatorFor(seed, drawKey(section, pass));
  const drawn = new Set<number>();
  for (let n = 0; n < wanted; n += 1) {
    const at = uniformInt(random, n, pool.length - 1);
    const picked = pool[at] as number;
    pool[at] = pool[n] as number;
    drawn.add(picked);
  }
  return drawn;
}

/**
 * Draws the value of a given with `random: true` from its assumed shares; without shares its options are
 * equally likely. Null where there is nothing to draw from.
 */
export function drawGiven(given: Given, seed: number): Value | null {
  const random = generatorFor(seed, `given/${given.name}`);
  const { answer } = given;
  if (isNumeric(answer)) {
    const step = 'step' in answer ? (answer.step ?? 1) : 1;
    const steps = Math.floor((answer.max - answer.min) / step);
    return answer.min + step * uniformInt(random, 0, steps);
  }
  const options = optionsOf(answer).filter((option) => option.missing === undefined);
  const shares = options.map(
    (option) => given.assume?.shares?.[String(option.code)] ?? (given.assume?.shares ? 0 : 1),
  );
  const total = shares.reduce((sum, share) => sum + share, 0);
  let mark = uniformFloat64(random) * total;
  const index = shares.findIndex((share) => (mark -= share) < 0);
  const code = options[index]?.code ?? options.at(-1)?.code;
  return code === undefined ? null : picksMany(answer) ? [code] : code;
}

/** The draws named in a walk's input, as plan item indices; a problem names the section. */
export function readDraws(
  plan: Plan,
  draws: Readonly<Record<string, readonly string[]>>,
): { ok: true; drawn: ReadonlyMap<string, ReadonlySet<number>> } | { ok: false; problem: string } {
  const drawn = new Map<string, ReadonlySet<number>>();
  const refuse = (problem: string) => ({ ok: false as const, problem });
  for (const [key, names] of Object.entries(draws)) {
    const { name: id, pass } = readPassKey(key);
    const section = plan.sections.find((candidate) => candidate.section.id === id);
    if (section?.section.draw === undefined) return refuse(`draws.${key}: no section "${id}" draws`);
    const repeated = section.repeat !== null;
    const inRange = (pass ?? 1) >= 1 && (pass ?? 1) <= (section.repeat?.max ?? 1);
    if ((pass !== null) !== repeated || !inRange) {
      return refuse(
        `draws.${key}: write ${repeated ? `${id}#pass, with a pass from 1 to ${section.repeat?.max}` : id}`,
      );
    }
    const set = new Set<number>();
    for (const name of names) {
      const item = section.items.find((candidate) => candidate.item.name === name);
      if (item?.item.kind !== 'question')
        return refuse(`draws.${key}: "${name}" is no question of section "${id}"`);
      set.add(item.index);
    }
    if (set.size !== names.length || set.size !== section.section.draw) {
      return refuse(
        `draws.${key}: section "${id}" draws ${section.section.draw} different questions, not ${names.length}`,
      );
    }
    drawn.set(key, set);
  }
  return { ok: true, drawn };
}
