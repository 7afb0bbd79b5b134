/** A questionnaire as it is handed to a respondent's page: all that its walk and its words need, and nothing that is for the office. */
import type { Given, Question, Questionnaire, Settings, Statement } from '../document/types';

/**
 * Without assumed shares and what a forecast is made for, without how many are wanted in a quota, and without what is told to interviewers alone. It walks as the
 * whole does.
 */
export function forRespondents(document: Questionnaire): Questionnaire {
  const isRead = document.settings?.mode === 'interviewer';
  const { quotas, given, settings } = document;
  return {
    ...document,
    ...(settings === undefined ? {} : { settings: withoutForecast(settings) }),
    ...(given === undefined ? {} : { given: given.map(withoutShares) }),
    ...(quotas === undefined
      ? {}
      : { quotas: quotas.map((quota) => ({ ...quota, label: quota.id, target: 1 })) }),
    sections: document.sections.map((section) => ({
      ...section,
      items: section.items.map((item) =>
        item.kind === 'question' || item.kind === 'statement' ? forThem(item, isRead) : item,
      ),
    })),
  };
}

const withoutForecast = ({ forecast: _forecast, pace: _pace, ...settings }: Settings): Settings => settings;

const withoutShares = ({ assume: _assume, ...given }: Given): Given => given;

function forThem(item: Question | Statement, isRead: boolean): Question | Statement {
  const { instruction, ...rest } = item;
  const shown = isRead && instruction !== undefined ? { ...rest, instruction } : rest;
  if (!('assume' in shown)) return shown;
  const { assume: _assume, ...question } = shown;
  return question;
}
