/** How the lines of a drafted list look: headings, numbers, bullets, instructions to skip, rows of answers. */

/** Bullets as word processors, forms and keyboards make them. */
const BULLET =
  /^(?:[-*+•–—▪◦○●◯□☐❑❒▢✓✔·‣⁃]|o(?=\s)|\[\s?[x ]?\]|\(\s?\)|\(?[a-z][.)](?=\s)|\(?(?:i{1,3}|iv|vi{0,3}|ix|x)[.)](?=\s))\s*/i;
/** Letters and small roman numbers tell statements of a block as well as answers. */
const LETTERED = /^\(?(?:[a-z]|i{1,3}|iv|vi{0,3}|ix|x)[.)]\s+/i;

export function withoutBullet(text: string): string {
  return text.replace(BULLET, '').trim();
}

export const hasBullet = (text: string) => BULLET.test(text);
export const isLettered = (text: string) => LETTERED.test(text);

const ASKING =
  /^(?:how|what|which|who|whom|whose|where|when|why|do|does|did|are|is|was|were|have|has|had|can|could|would|will|should|please|to what|in what|in which|on (?:a|which)|at what|thinking|overall|roughly|about how|if you|apart from|tell|rate|rank|describe|choose|select|name|list|give|any other|anything else)\b/i;

/** Words that ask, whether or not a question mark ends them. */
export function asks(text: string): boolean {
  return (
    /\?\W*(?:[([][^)\]]*[)\]]\W*)*$/.test(text) ||
    /\?\s/.test(text) ||
    (ASKING.test(text) && words(text) >= 4)
  );
}

export function words(text: string): number {
  return text.split(/\s+/).filter((word) => /\p{L}/u.test(word)).length;
}

const HEADING = /^#+\s*(.+?)\s*#*$/;
const BOLD = /^(?:\*\*|__)(.+?)(?:\*\*|__):?$/;
const NAMED = /^(?:section|part|block|module)\s+(?:[a-z]|\d+|[ivx]+)\b\s*[:.)–—-]?\s*(.*)$/i;

/** The title of a section that a line opens; null where it opens none. `alone`: it stands after a blank line. */
export function headingIn(text: string, alone: boolean): string | null {
  const marked = (HEADING.exec(text) ?? BOLD.exec(text))?.[1];
  if (marked !== undefined) return NAMED.exec(marked)?.[1] || marked;
  const lettered = /^[A-Z][.):]\s+(.+)$/.exec(text)?.[1];
  if (lettered !== undefined && isCapitals(lettered)) return inSentenceCase(lettered);
  const named = NAMED.exec(text);
  if (named !== null && !/[?]$/.test(text)) return inSentenceCase(named[1] || text);
  if (isCapitals(text)) return inSentenceCase(text.replace(/:$/, ''));
  return alone && isTitleCase(text) ? text.replace(/:$/, '') : null;
}

/** Several capital letters and no small one, nothing that is told or asked. */
function isCapitals(text: string): boolean {
  return (
    /[A-Z].*[A-Z].*[A-Z]/.test(text) &&
    !/[a-z]/.test(text) &&
    !/^[([]|^(?:IF|ASK|GO|SKIP|END)\b|^Q?\d|[?]$/.test(text) &&
    !hasBullet(text)
  );
}

/** A few words, the long ones with capitals, and no stop at the end: “Your Home and Garden”. */
function isTitleCase(text: string): boolean {
  const all = text.replace(/:$/, '').split(/\s+/);
  if (all.length > 7 || /[.?!,;_=]|^\d|^[([]/.test(text.replace(/:$/, '')) || hasBullet(text)) return false;
  const long = all.filter((word) => word.length > 3 || word === all[0]);
  return (
    long.length > 0 &&
    /^\p{Lu}/u.test(text) &&
    (all.length === 1 ? /:$/.test(text) : long.every((word) => /^\p{Lu}/u.test(word)))
  );
}

/** A title in capitals as a title. */
export function inSentenceCase(title: string): string {
  if (/[a-z]/.test(title)) return title;
  return title.charAt(0) + title.slice(1).toLowerCase();
}

const NUMBERED = /^(Q(?:uestion)?\.?\s*)?(\d+[a-z]?|[A-Z]\d+[a-z]?)\s*([.):]|[-–—](?=\s)|(?=\s))\s*(.*)$/i;

export interface Numbered {
  /** As it is written. */
  readonly number: string;
  /** With a Q in front. */
  readonly isMarked: boolean;
  /** What stands after it: `.`, `)`, `:`, a dash, or nothing. */
  readonly stop: string;
  readonly rest: string;
}

export function numberIn(text: string): Numbered | null {
  const found = NUMBERED.exec(text);
  if (found === null) return null;
  const [, mark, number = '', stop = '', rest = ''] = found;
  return { number, isMarked: mark !== undefined, stop, rest };
}

const JUMP =
  /(?:(?:skip|go|jump|move|proceed|continue|route)\s+(?:straight\s+|on\s+|ahead\s+)?to|->|→|=>|⇒|➔)\s*(?:the\s+)?((?:question|q|section)?\s*[\w .'’&/-]+?)\s*[.)\]]*$/i;
const CARRY_ON = /^(?:continue|carry on|go on|next|proceed|go to (?:the )?next(?: question)?)$/i;
export const CLOSE =
  /^(?:the\s+)?(?:end|close|finish)(?:\s+of)?(?:\s+(?:the\s+)?(?:survey|interview|questionnaire))?$|^thank(?: (?:you|them|respondent))?(?: and)? (?:close|end)$|^(?:end|close|stop|terminate)(?: (?:the )?(?:survey|interview))?$/i;
export const SCREEN = /screen(?:ed)?[\s-]*out/i;

/** Where some words lead: a target as it is written, or nothing but on. Null where they lead nowhere. */
export function jumpIn(text: string): string | 'on' | null {
  const plain = text
    .trim()
    .replace(/^[([]+|[.)\]]+$/g, '')
    .trim();
  if (CARRY_ON.test(plain)) return 'on';
  const asked = /^ask\s+(?:q(?:uestion)?\.?\s*)?(\d+[a-z]?|[a-z]\d+)$/i.exec(plain);
  if (asked !== null) return asked[1] ?? null;
  const found = JUMP.exec(plain)?.[1];
  if (found !== undefined) return found.trim();
  return CLOSE.test(plain) || SCREEN.test(plain) ? plain : null;
}

/** Words with what leads on from them at their end: in brackets, or behind an arrow or dash. */
export function splitJump(text: string): { readonly words: string; readonly jump: string | null } {
  const bracket = /\s*[([]([^()[\]]*)[)\]]\s*\.?$/.exec(text);
  if (bracket !== null) {
    const jump = jumpIn(bracket[1] ?? '');
    if (jump !== null) return { words: text.slice(0, bracket.index).trim(), jump };
  }
  const arrow =
    /\s*(?:->|→|=>|⇒|➔|[-–—:,;]\s*(?=(?:skip|go|jump|end|thank|screen|terminate)\b))\s*(.+)$/i.exec(text);
  if (arrow === null) return { words: text, jump: null };
  const target = (arrow[1] ?? '').replace(/[.)\]]+$/, '');
  return { words: text.slice(0, arrow.index).trim(), jump: jumpIn(target) ?? target };
}

/** One branch of an instruction below a question. */
export interface Clause {
  /** The answers that take it, as they are named. */
  readonly answers: readonly string[];
  readonly to: string | 'on';
}

/** “IF YES CONTINUE, IF NO SKIP TO Q12”, “If no or not sure, go to 12”; null where a line is no such instruction. */
export function clausesIn(text: string): Clause[] | null {
  const plain = text
    .trim()
    .replace(/^[([]+|[)\]]+$/g, '')
    .replace(/^(?:routing|instruction|interviewer):\s*/i, '');
  if (!/^if\b/i.test(plain)) return null;
  const parts = plain.split(/[,;.]?\s+(?=(?:and\s+|but\s+)?if\s)/i);
  const clauses = parts.map((part) => {
    const found =
      /^(?:and\s+|but\s+)?if\s+(.+?)\s*[,:–-]?\s+(?:then\s+)?(?:please\s+)?((?:continue|carry on|go|skip|jump|move|proceed|ask|end|close|thank|screen|stop|terminate|route)\b.*|(?:->|→|=>).*)$/i.exec(
        part.replace(/[.;,]$/, ''),
      );
    const to = found === null ? null : jumpIn((found[2] ?? '').replace(/^(?:please\s+)/i, ''));
    return found === null || to === null ? null : { answers: namedAnswers(found[1] ?? ''), to };
  });
  return clauses.every((clause) => clause !== null) ? clauses : null;
}

function namedAnswers(text: string): string[] {
  return text
    .replace(/["'“”‘’]/g, '')
    .replace(
      /^(?:the\s+)?(?:answer(?:ed|s)?(?:\s+is)?|they\s+(?:say|answer)|respondent\s+(?:says|answers))\s*/i,
      '',
    )
    .split(/\s*(?:\/|,|\bor\b)\s*/i)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

/** Whom a question is asked of: the number of an earlier one, and answers or a comparison. */
export interface AskedOf {
  readonly number: string;
  readonly answers: readonly string[];
}

/** “[If yes at Q16]”, “(ask if Q3 = 2)”, “ASK IF Q3 = 1 OR 2”; null where a line says nothing of the kind. */
export function askedOf(text: string): AskedOf | null {
  const plain = text
    .trim()
    .replace(/^[([]+|[)\]:]+$/g, '')
    .trim();
  const body =
    /^(?:only\s+)?(?:ask\s+|answer\s+|show\s+)?(?:only\s+)?(?:(?:all|those|people|respondents)\s+)?(?:if|who|where)\s+(.+)$/i.exec(
      plain,
    )?.[1];
  if (body === undefined) return null;
  if (/\b(?:skip|go|jump|move|proceed|continue|end|close|terminate)\b|->|→/i.test(body)) return null;
  const equals = /^(?:q(?:uestion)?\.?\s*)?(\d+[a-z]?|[a-z]{1,2}\d+[a-z]?)\s*(?:=|is|was)\s*(.+)$/i.exec(
    body,
  );
  if (equals !== null) return { number: equals[1] ?? '', answers: namedAnswers(equals[2] ?? '') };
  const at =
    /^(?:answered\s+|said\s+|say\s+|selected\s+|chose\s+)?(.+?)\s+(?:at|in|to|on|for|from)\s+(?:q(?:uestion)?\.?\s*)?(\d+[a-z]?|[a-z]\d+)$/i.exec(
      body,
    );
  return at === null ? null : { number: at[2] ?? '', answers: namedAnswers(at[1] ?? '') };
}

const KNOWN =
  /^(?:yes|no|true|false|male|female|agree|disagree|maybe|always|never|often|sometimes|don.?t know|not sure|unsure|n\/?a|prefer not to (?:say|answer))\b/i;

/** Answers written on one line: “Yes / No”, “Yes/No/Don't know”, with tabs or bars between. Null where it is no row. */
export function rowOfAnswers(text: string): string[] | null {
  const plain = text.trim().replace(/^[([]|[)\]]$/g, '');
  for (const by of [/\s*\t+\s*/, /\s+\/\s+/, /\s*\|\s*/, /\s{3,}/, /\s*;\s+/]) {
    const parts = plain
      .split(by)
      .map((part) => withoutBullet(part.trim()))
      .filter((part) => part !== '');
    if (parts.length > 1 && parts.every((part) => words(part) <= 8 || /^\d+$/.test(part))) return parts;
  }
  const close = plain.split('/').map((part) => part.trim());
  return close.length > 1 && close.every((part) => part !== '') && close.some((part) => KNOWN.test(part))
    ? close
    : null;
}
