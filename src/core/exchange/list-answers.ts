/** What the answers and hints of a drafted list say: how many may be picked, limits, scales, fields to write in. */
import { OPTION_MISSING, type Option } from '../document/types';
import { OPTIONS_MISSING } from '../document/vocabularies';
import { nextCode } from '../editing/structure';

const NUMBERS: Readonly<Record<string, number>> = {
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
};
const COUNT = `(\\d+|${Object.keys(NUMBERS).join('|')})`;
const countOf = (text: string | undefined) => NUMBERS[(text ?? '').toLowerCase()] ?? Number(text);

/** How many answers may be picked, as far as words say so. */
export interface PicksAllowed {
  readonly several: boolean;
  readonly least?: number;
  readonly most?: number;
}

/** Null where words say nothing about it. */
export function picksIn(text: string): PicksAllowed | null {
  const up = new RegExp(`\\b(?:up to|at most|no more than|maximum(?: of)?|max\\.?)\\s+${COUNT}\\b`, 'i').exec(
    text,
  );
  const atLeast = new RegExp(`\\b(?:at least|minimum(?: of)?)\\s+${COUNT}\\b`, 'i').exec(text);
  const picking = /\b(?:select|choose|pick|tick|mark|answers?|options?|boxes|responses?)\b/i.test(text);
  if (picking && up !== null)
    return {
      several: countOf(up[1]) > 1,
      most: countOf(up[1]),
      ...(atLeast === null ? {} : { least: countOf(atLeast[1]) }),
    };
  if (picking && atLeast !== null) return { several: true, least: countOf(atLeast[1]) };
  if (
    /\b(?:one answer|single answer|one only|only one|single (?:code|response|choice)|(?:select|choose|tick|pick|mark) (?:just |only )?one)\b/i.test(
      text,
    )
  )
    return { several: false };
  if (
    /\b(?:all that apply|tick all|select all|choose all|mark all|check all|more than one|as many as|multiple (?:answers|responses|choice)|multi(?:ple)?[- ]?code)\b/i.test(
      text,
    )
  )
    return { several: true };
  const exactly = new RegExp(
    `\\b(?:select|choose|pick|tick|mark)\\s+(?:your\\s+|the\\s+|exactly\\s+)*(?:top\\s+|best\\s+)?${COUNT}\\b`,
    'i',
  ).exec(text);
  if (exactly === null) return null;
  const count = countOf(exactly[1]);
  return count === 1 ? { several: false } : { several: true, least: count, most: count };
}

/** Whether an answer is to be written, as a line, a hint or words at the end of a question say. */
export function writtenIn(text: string): 'one' | 'many' | null {
  const plain = text.trim();
  if (/^[_.…\s]{3,}$/.test(plain)) return 'one';
  const found =
    /^[([]?\s*(?:open(?:[- ]?(?:text|ended|end|answer))?|write in|free text|text(?: box)?|verbatim|please write(?: in)?|specify)\s*[)\]]?:?\s*_*$/i.test(
      plain,
    );
  return found ? (/open|verbatim|free/i.test(plain) ? 'many' : 'one') : null;
}

export interface ScaleIn {
  readonly min: number;
  readonly max: number;
  readonly low?: string;
  readonly high?: string;
}

/** “0 = not at all … 10 = completely”, “Not at all 1 2 3 4 5 Completely”, “1 2 3 4 5”; null where it is no scale. */
export function scaleIn(text: string): ScaleIn | null {
  const plain = text.trim().replace(/^[([]|[)\]]$/g, '');
  const ends =
    /^(?:(?:on )?(?:a |the )?scale (?:of|from|where)?:?\s*)?(-?\d+)\s*(?:=|is|means|:)\s*(.+?)\s*(?:…|\.{2,}|\bto\b|\band\b|[-–—;,|]|\t)+\s*(-?\d+)\s*(?:=|is|means|:)\s*(.+?)\.?$/i.exec(
      plain,
    );
  if (ends !== null) {
    const [min, max] = [Number(ends[1]), Number(ends[3])];
    // Codes that follow on each other are answers, not the ends of a scale.
    return max - min >= 3 && max - min <= 100 ? { min, max, low: ends[2] ?? '', high: ends[4] ?? '' } : null;
  }
  const row = /^(.*?)\s*((?:-?\d+\s+){2,}-?\d+)\s*(.*)$/.exec(plain.replace(/[|/\t,]/g, ' '));
  if (row === null) return null;
  const marks = (row[2] ?? '').trim().split(/\s+/).map(Number);
  const [min = 0] = marks;
  const inARow = marks.every((mark, n) => mark === min + n);
  if (!inARow || marks.length < 3) return null;
  const [low, high] = [row[1] ?? '', row[3] ?? ''].map((label) => label.replace(/[:–-]+$/, '').trim());
  return { min, max: min + marks.length - 1, ...(low ? { low } : {}), ...(high ? { high } : {}) };
}

/** “1 = Yes, 2 = No” on one line; null where it is no such list. */
export function codedRow(text: string): { readonly code: number; readonly label: string }[] | null {
  const parts = text
    .trim()
    .replace(/^[([]|[)\]]$/g, '')
    .split(/\s*(?:[,;|\t]|\s{2,})\s*(?=-?\d+\s*=)/);
  const found = parts.map((part) => /^(-?\d+)\s*=\s*(\S.*)$/.exec(part));
  return parts.length > 1 && found.every((each) => each !== null)
    ? found.map((each) => ({ code: Number(each[1]), label: (each[2] ?? '').trim() }))
    : null;
}

/** A number and a space: a code, unless what follows goes on about the number. */
const CODED =
  /^(-?\d{1,4})(?:\s*(?:=|:|\t)\s*|\s+(?!(?:to|or|and|of|in|per|an?|–|-|%|years?|hours?|minutes?|times?|days?|weeks?|months?|people|km|miles?)\b|[–%-]))(\S.*)$/i;
const CODE_LAST = /^(\S.*?)(?:\t+|\s*\.{3,}\s*|\s*…+\s*|\s{3,})(-?\d{1,4})$/;

/** An answer with its code, before or after it, where it has one. */
export function codeIn(text: string): { readonly label: string; readonly code: number | null } {
  const before = CODED.exec(text);
  if (before !== null) return { label: (before[2] ?? '').trim(), code: Number(before[1]) };
  const after = CODE_LAST.exec(text);
  return after === null
    ? { label: text, code: null }
    : { label: (after[1] ?? '').trim(), code: Number(after[2]) };
}

/** An option by its words: don't know and the like, none of these, and those to be specified are told. */
export function optionFrom(written: string, code: number | null, before: readonly Option[]): Option {
  const free = (wanted: number) => {
    let at = wanted;
    while (before.some((option) => option.code === at)) at -= 1;
    return at;
  };
  const label = written
    .replace(/\s*[([]\s*(?:exclusive|single code|do not read out)?\s*[)\]]\s*$/i, '')
    .trim();
  const missing = OPTION_MISSING.find((kind) => OPTIONS_MISSING[kind].writtenLike.test(label));
  if (missing !== undefined) return { code: code ?? free(OPTIONS_MISSING[missing].codes[0]), label, missing };
  if (
    /^none(?: of (?:these|the above|them))?$|^nothing(?: of the kind)?$|exclusive\s*[)\]]\s*$/i.test(label) ||
    /\(\s*exclusive\s*\)/i.test(written)
  )
    return { code: code ?? free(97), label, exclusive: true };
  const specify =
    /^(.*?\S)\s*[([,:–-]?\s*(?:please\s+)?(?:specify|say|state|write in|write it in|describe)\b[^)\]]*[)\]]?:?[\s_.…]*$/i.exec(
      label,
    ) ?? /^(.*?[^\s_…:.])\s*(?::\s*[_.…]*|[_…]{2,}|\.{3,})$/.exec(label);
  const next = code ?? nextCode(before);
  return specify === null
    ? { code: next, label }
    : { code: next, label: (specify[1] ?? label).replace(/[,:([\s–-]+$/, ''), specify: true };
}
