/** The settings of a link as they are typed in fields, and read from there. */
import { format, parseISO } from 'date-fns';
import * as v from 'valibot';
import {
  siteOf,
  TrialSettingsSchema,
  USUAL_TRIAL,
  type TrialSettings,
} from '../../../core/responding/trial-settings';

/** As it stands in the fields; empty where there is nothing. */
export interface SettingsText {
  readonly opensAt: string;
  readonly closesAt: string;
  readonly mostResponses: string;
  readonly toldApart: TrialSettings['toldApart'];
  readonly attempts: string;
  readonly minutes: string;
  readonly mayGoBack: boolean;
  readonly mayReturn: boolean;
  readonly humanCheck: 'as-written' | 'asked' | 'not-asked';
  readonly language: string;
  readonly closing: string;
  readonly whenClosed: string;
  readonly stopped: TrialSettings['stopped'];
  readonly stoppedAfter: string;
  readonly embeddedIn: string;
  readonly signed: boolean;
  /** Chosen on the monitor; carried along here. */
  readonly partialFrom: string;
}

/** Local time, as a field for it takes it. */
const momentText = (at: number | undefined) => (at === undefined ? '' : format(at, "yyyy-MM-dd'T'HH:mm"));
const numberText = (of: number | undefined) => (of === undefined ? '' : String(of));

export function settingsText(settings: TrialSettings = USUAL_TRIAL): SettingsText {
  const { humanCheck } = settings;
  return {
    opensAt: momentText(settings.opensAt),
    closesAt: momentText(settings.closesAt),
    mostResponses: numberText(settings.mostResponses),
    toldApart: settings.toldApart,
    attempts: numberText(settings.attempts),
    minutes: numberText(settings.minutes),
    mayGoBack: settings.mayGoBack,
    mayReturn: settings.mayReturn,
    humanCheck: humanCheck === undefined ? 'as-written' : humanCheck ? 'asked' : 'not-asked',
    language: settings.language ?? '',
    closing: settings.closing ?? '',
    whenClosed: settings.whenClosed ?? '',
    stopped: settings.stopped,
    stoppedAfter: numberText(settings.stoppedAfter),
    embeddedIn: settings.embeddedIn ?? '',
    signed: settings.signed,
    partialFrom: settings.partialFrom ?? '',
  };
}

export type SettingsRead =
  { readonly ok: true; readonly settings: TrialSettings } | { readonly ok: false; readonly problem: string };

/** Reads the fields; `problem` says what is wrong with the first that cannot be read. */
export function readSettings(text: SettingsText): SettingsRead {
  const whole = (written: string) => Number(written.trim().replaceAll(',', ''));
  const optional = <Value>(name: string, written: string, read: (written: string) => Value) =>
    written.trim() === '' ? {} : { [name]: read(written.trim()) };
  const parsed = v.safeParse(TrialSettingsSchema, {
    ...optional('opensAt', text.opensAt, (at) => parseISO(at).getTime()),
    ...optional('closesAt', text.closesAt, (at) => parseISO(at).getTime()),
    ...optional('mostResponses', text.mostResponses, whole),
    ...optional('minutes', text.minutes, whole),
    ...optional('language', text.language, String),
    ...optional('closing', text.closing, String),
    ...optional('whenClosed', text.whenClosed, String),
    ...optional('embeddedIn', text.embeddedIn, (site) => siteOf(site) ?? site),
    ...optional('partialFrom', text.partialFrom, String),
    ...(text.humanCheck === 'as-written' ? {} : { humanCheck: text.humanCheck === 'asked' }),
    toldApart: text.toldApart,
    attempts: whole(text.attempts || '1'),
    mayGoBack: text.mayGoBack,
    mayReturn: text.mayReturn,
    stopped: text.stopped,
    stoppedAfter: whole(text.stoppedAfter || '24'),
    signed: text.signed,
  });
  if (parsed.success) return { ok: true, settings: parsed.output };
  const [{ message }] = parsed.issues;
  return { ok: false, problem: `${message.charAt(0).toUpperCase()}${message.slice(1)}.` };
}

/** What is other than usual, in a few words each. */
export function settingsWords(settings: TrialSettings): string[] {
  const when = (at: number) => format(at, 'd MMM yyyy, HH:mm');
  const { opensAt, closesAt, mostResponses, toldApart, attempts, minutes, humanCheck } = settings;
  return [
    toldApart === 'personal'
      ? 'by links of their own'
      : toldApart === 'browser'
        ? 'told apart by browser'
        : '',
    toldApart === 'anyone' ? '' : attempts === 1 ? 'each once' : `each at most ${attempts} times`,
    opensAt === undefined ? '' : `opens ${when(opensAt)}`,
    closesAt === undefined ? '' : `closes ${when(closesAt)}`,
    mostResponses === undefined ? '' : `at most ${mostResponses.toLocaleString('en')} responses`,
    minutes === undefined ? '' : `${minutes} min for the whole`,
    settings.mayGoBack ? '' : 'no way back',
    settings.mayReturn ? '' : 'no return from another browser',
    humanCheck === undefined ? '' : humanCheck ? 'human check' : 'no human check',
    settings.language === undefined ? '' : `language ${settings.language}`,
    settings.stopped === 'keep' ? '' : `who stops is removed after ${settings.stoppedAfter} h`,
    settings.embeddedIn === undefined ? '' : `inside ${settings.embeddedIn}`,
  ].filter((words) => words !== '');
}
