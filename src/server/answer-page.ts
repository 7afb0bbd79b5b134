/** The page under a respondent's link, as it leaves the server: its first questions drawn already, and the program that goes on. */
import { createHash, randomUUID } from 'node:crypto';
import type { FontFamily } from '../assets/assets';
import { writeDocument } from '../core/document/read';
import { escaped, inScript } from '../core/exchange/markup';
import { forRespondents } from '../core/responding/for-respondents';
import { caseBegun } from '../core/responding/kept-case';
import { pageCase } from '../core/responding/page-case';
import { canBegin } from '../core/responding/people';
import { closedWords } from '../core/responding/trial-settings';
import { turnedCase } from '../core/responding/turn';
import type { Plan } from '../core/routing/plan';
import type { Store } from '../store/open';
import { findPerson } from '../store/people';
import { hasBegun, seedFrom, STRANGER } from '../store/responses';
import { trialPlan } from '../store/trial-plans';
import { findTrial, type FoundTrial } from '../store/trials';
import { isChecked } from '../store/turns';
import { keptName, type AnswerPage } from '../wire/answer';

export interface Program {
  /** Draws the first page of a questionnaire as HTML. */
  readonly drawn: (page: AnswerPage, plan: Plan) => string;
  /** Where browsers find it. */
  readonly address: string;
  readonly styles: string;
  /** Addresses of the letters of a font: the usual ones, and rarer ones. */
  readonly fonts: Readonly<Record<FontFamily, readonly [string, string]>>;
}

export interface Drawn {
  readonly status: number;
  readonly html: string;
  /** What the page may do. */
  readonly policy: string;
}

/** `key`: of somebody's own link; null under the link for all. */
export function answerPage(
  db: Store,
  program: Program,
  { token, key }: { readonly token: string; readonly key: string | null },
  now: number,
): Drawn {
  const trial = findTrial(db, token);
  const person = key === null ? null : findPerson(db, token, key);
  if (trial === null || (key !== null && person === null))
    return {
      status: 404,
      html: messagePage(
        program,
        'No questionnaire here',
        'There is no questionnaire at this address: it may have been mistyped. Open the link as it was sent to you.',
      ),
      policy: policyFor(null, NOTHING_EARLY),
    };
  const plan = trialPlan(trial);
  const page = pageOf(db, { trial, plan, person }, now);
  const early = earlyScript(keptName(token, key));
  return { status: 200, html: whole(program, page, plan, trial, early), policy: policyFor(trial, early) };
}

interface Asked {
  readonly trial: FoundTrial;
  readonly plan: Plan;
  readonly person: ReturnType<typeof findPerson>;
}

function pageOf(db: Store, { trial, plan, person }: Asked, now: number): AnswerPage {
  const { settings, token } = trial;
  const ticket = randomUUID();
  const needsOwnLink = settings.toldApart === 'personal' && person === null;
  const closed = closedWords(trial, now) ?? (needsOwnLink ? STRANGER : null);
  return {
    token,
    key: person?.key ?? null,
    ticket,
    // Whoever has begun goes on, also where nobody else can begin.
    closed: person !== null && hasBegun(db, token, person.key) ? null : closed,
    document: JSON.parse(writeDocument(forRespondents(plan.document))) as unknown,
    title: plan.document.title,
    isDraft: trial.version === null,
    first: closed === null ? firstOf(db, { trial, plan, person }, ticket, now) : null,
    toCheck: isChecked(trial, plan),
    settings: {
      toldApart: settings.toldApart,
      attempts: settings.attempts,
      minutes: settings.minutes ?? null,
      mayGoBack: settings.mayGoBack,
      mayReturn: settings.mayReturn,
      closing: settings.closing ?? null,
      stopped: settings.stopped,
      stoppedAfter: settings.stoppedAfter,
      signed: settings.signed,
    },
  };
}

/** Where chance allots something only once the response is begun, or somebody goes on, there is nothing to draw yet. */
function firstOf(
  db: Store,
  { trial, plan, person }: Asked,
  ticket: string,
  now: number,
): AnswerPage['first'] {
  const given = person?.given ?? {};
  const isAllotted = plan.document.given?.some(({ random }) => random) ?? false;
  if (isAllotted || !canBegin(plan, given)) return null;
  if (person !== null && hasBegun(db, trial.token, person.key)) return null;
  const begun = { key: ticket, id: '1', seed: seedFrom(trial.seed, ticket), given };
  return pageCase(turnedCase(caseBegun(plan, begun, now)));
}

function whole(program: Program, page: AnswerPage, plan: Plan, trial: FoundTrial, early: string): string {
  const { document } = plan;
  const scripts = `<script>${early}</script>
<script defer src="${program.address}"></script>
`;
  const font = document.settings?.theme?.font === 'JetBrains Mono' ? 'JetBrains Mono' : 'Instrument Sans';
  return `${headOf(trial.settings.language ?? document.language, document.title, scripts + styled(program, font))}
<body>
<div id="respondent">${program.drawn(page, plan)}</div>
<noscript>This questionnaire needs JavaScript, which this browser has turned off.</noscript>
<script type="application/json" id="questionnaire">${inScript(JSON.stringify(page))}</script>
</body>
</html>
`;
}

function messagePage(program: Program, title: string, text: string): string {
  return `${headOf('en', title, styled(program, 'Instrument Sans'))}
<body><main class="message"><h1>${escaped(title)}</h1><p>${escaped(text)}</p></main></body>
</html>
`;
}

/** Down to the end of the head. `more`: scripts and styles, as HTML. */
function headOf(language: string, title: string, more: string): string {
  return `<!doctype html>
<html lang="${escaped(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<link rel="icon" href="data:,">
<title>${escaped(title)}</title>
${more}
</head>`;
}

function styled({ styles, fonts }: Program, family: FontFamily): string {
  const [usual, more] = fonts[family];
  const face = (address: string, range: string) =>
    `@font-face{font-family:'${family} Variable';font-weight:400 700;font-display:swap;src:url(${address}) format('woff2');unicode-range:${range}}`;
  return `<style>
${face(more, 'U+0100-02FF,U+1E00-1EFF,U+20A0-20AB,U+20AD-20C0')}
${face(usual, 'U+0000-00FF,U+2000-206F,U+20AC,U+2190-2199,U+2212')}
${styles}
[data-returning] #respondent{visibility:hidden}
.message{max-width:680px;margin:15vh auto 0;padding:20px 24px 28px;background:var(--sheet)}
</style>`;
}

const NOTHING_EARLY = '';

/**
 * Runs before anything is drawn. Whoever comes back is not shown the first page for a moment, and who sends the page before the
 * program is there has sent it all the same (`respondent/early.ts`).
 */
function earlyScript(name: string): string {
  return `try{if(localStorage.getItem(${JSON.stringify(name)}))document.documentElement.dataset.returning=''}catch{}
window.early={sent:false};addEventListener('submit',e=>{if(window.early){e.preventDefault();early.sent=true}},true)`;
}

/** Scripts of this house alone; shown inside of another page only where the author has named its site. */
function policyFor(trial: FoundTrial | null, early: string): string {
  const hash = createHash('sha256').update(early).digest('base64');
  return [
    "default-src 'none'",
    early === '' ? "script-src 'none'" : `script-src 'self' 'sha256-${hash}'`,
    "style-src 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    "base-uri 'none'",
    "form-action 'none'",
    `frame-ancestors ${trial?.settings.embeddedIn ?? "'none'"}`,
  ].join('; ');
}
