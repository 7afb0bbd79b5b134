/** The settings of a made-up panel as they are typed in fields, and read from there. */
import * as v from 'valibot';
import type { LetterKind, LetterText } from '../../../core/panel/letters';
import { PanelSettingsSchema, type Behaviour, type PanelSettings } from '../../../core/panel/panel-settings';

type Numbered = 'days' | 'hour' | 'reminderAfter' | 'secondReminderAfter' | 'seed';

export interface PanelText {
  /** As a date field has it. */
  readonly firstDay: string;
  readonly numbers: Readonly<Record<Numbered, string>>;
  readonly behaviour: Readonly<Record<keyof Behaviour, string>>;
  readonly texts: Readonly<Record<LetterKind, LetterText>>;
}

export type PanelRead =
  { readonly ok: true; readonly settings: PanelSettings } | { readonly ok: false; readonly problem: string };

export function panelText(settings: PanelSettings): PanelText {
  const { days, hour, reminderAfter, secondReminderAfter, seed, behaviour, texts, startsAt } = settings;
  const written = (of: Readonly<Record<string, number>>) =>
    Object.fromEntries(Object.entries(of).map(([name, value]) => [name, String(value)]));
  return {
    firstDay: new Date(startsAt).toISOString().slice(0, 10),
    numbers: written({ days, hour, reminderAfter, secondReminderAfter, seed }) as PanelText['numbers'],
    behaviour: written(behaviour) as PanelText['behaviour'],
    texts,
  };
}

/** Reads the fields; `problem` says what is wrong with the first that cannot be read. What is empty is not a nought. */
export function readPanel(text: PanelText): PanelRead {
  const number = (written: string) =>
    written.trim() === '' ? NaN : Number(written.trim().replace(',', '.'));
  const numbers = (of: Readonly<Record<string, string>>) =>
    Object.fromEntries(Object.entries(of).map(([name, written]) => [name, number(written)]));
  const startsAt = Date.parse(`${text.firstDay}T00:00:00Z`);
  if (Number.isNaN(startsAt)) return { ok: false, problem: 'The first day is a date.' };
  const parsed = v.safeParse(PanelSettingsSchema, {
    ...{ startsAt, texts: text.texts, behaviour: numbers(text.behaviour) },
    ...numbers(text.numbers),
  });
  if (parsed.success) return { ok: true, settings: parsed.output };
  const [{ message }] = parsed.issues;
  return { ok: false, problem: `${message.charAt(0).toUpperCase()}${message.slice(1)}.` };
}

/** What somebody reads before opening the fields. */
export function panelWords({ days, behaviour, reminderAfter, secondReminderAfter }: PanelSettings): string {
  const { invitation, reminder, second_reminder: second } = behaviour;
  return `${days} days, reminders after ${reminderAfter} and ${secondReminderAfter}; of a hundred ${invitation} begin after the invitation, ${reminder} and ${second} of the others after the reminders`;
}
