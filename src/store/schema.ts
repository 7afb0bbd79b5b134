/** The tables of the database. */
import {
  blob,
  customType,
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import type { Address } from '../core/document/addresses';
import type { Answers } from '../core/document/types';
import { VERDICTS } from '../core/document/vocabularies';
import type { Walked } from '../core/document/walked';
import { LETTERS } from '../core/panel/letters';
import type { PanelSettings } from '../core/panel/panel-settings';
import type { GateCheck } from '../core/release/gate';
import { DEVICES, TRIAL_STATES, type TrialSettings } from '../core/responding/trial-settings';
import type { TurnedCase } from '../core/responding/turn';

/** What was written is there, and is not what was written: told as damage of the disk, as SQLite tells its own. */
export class DamagedRow extends Error {
  readonly code = 'SQLITE_CORRUPT_ROW';
}

/** A column with JSON in it. */
function json<Data>(name: string) {
  return customType<{ data: Data; driverData: string }>({
    dataType: () => 'text',
    toDriver: (value) => JSON.stringify(value),
    fromDriver(text) {
      try {
        return JSON.parse(text) as Data;
      } catch (error) {
        throw new DamagedRow(`the column ${name} of a row cannot be read`, { cause: error });
      }
    },
  })(name);
}

export const studies = sqliteTable('studies', {
  id: text('id').primaryKey(),
  /** The questionnaire as the text of its file. */
  document: text('document').notNull(),
  /** Grows by one with every save; a save names the revision it was made on. */
  revision: integer('revision').notNull(),
  /** Milliseconds since 1970, UTC. */
  createdAt: integer('created_at').notNull(),
  changedAt: integer('changed_at').notNull(),
  /** Set while the study is removed and can still be brought back. */
  removedAt: integer('removed_at'),
});

export const verdicts = sqliteTable(
  'verdicts',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** Fingerprint of what the route presents; see `core/routing/route-content.ts`. */
    route: text('route').notNull(),
    /** The marks the fingerprint was made from, as a JSON list: they find the route again after edits elsewhere. */
    marks: json<string[]>('marks').notNull(),
    /** The names presented when the verdict was given, as a JSON list. */
    items: json<string[]>('items').notNull(),
    /** The respondent who was walked, who finds what became of the route after an edit; null in old verdicts. */
    walked: json<Walked>('walked'),
    verdict: text('verdict', { enum: VERDICTS }).notNull(),
    remark: text('remark').notNull(),
    /** Item the remark is about; empty for the whole route. */
    place: text('place').notNull(),
    reviewer: text('reviewer').notNull(),
    at: integer('at').notNull(),
    /** The reviewer's link under which it was given; null where an author gave it. A key: never sent to anybody. */
    link: text('link'),
    /** The revision of the study it was given on, which tells the version; null of what is older than versions. */
    revision: integer('revision'),
  },
  (table) => [
    uniqueIndex('verdicts_route').on(table.studyId, table.route),
    index('verdicts_study').on(table.studyId),
  ],
);

/**
 * Versions that were kept of a study, or frozen for fielding. Triggers of the database refuse every change of one, and its
 * end while its study is there.
 */
export const versions = sqliteTable(
  'versions',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** From 1, in the order in which they were kept. */
    number: integer('number').notNull(),
    frozen: integer('frozen', { mode: 'boolean' }).notNull(),
    /** The questionnaire as the text of its file, and the SHA-256 of that text in hexadecimal digits. */
    document: text('document').notNull(),
    checksum: text('checksum').notNull(),
    /** Of the study when it was kept. */
    revision: integer('revision').notNull(),
    note: text('note').notNull(),
    author: text('author').notNull(),
    at: integer('at').notNull(),
    /** What stood in the way when it was frozen, and why it was frozen all the same; null where nothing did. */
    gate: json<{ check: GateCheck; count: string; complete: boolean }[]>('gate'),
    reason: text('reason'),
  },
  (table) => [uniqueIndex('versions_number').on(table.studyId, table.number)],
);

/** Routes drawn at random to be walked, the same for all who sign off: respondents made up with a seed. */
export const draws = sqliteTable('draws', {
  studyId: text('study_id')
    .primaryKey()
    .references(() => studies.id, { onDelete: 'cascade' }),
  seed: integer('seed').notNull(),
  /** How many respondents. */
  count: integer('count').notNull(),
  at: integer('at').notNull(),
});

/** Addresses under which somebody may read a study, walk it and judge its routes, without changing it. */
export const links = sqliteTable(
  'links',
  {
    /** Cannot be guessed; the only key to the study that its holder has. */
    token: text('token').primaryKey(),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** Whom it is for, in the author's words. */
    name: text('name').notNull(),
    createdAt: integer('created_at').notNull(),
    /** Set once it no longer opens anything. */
    withdrawnAt: integer('withdrawn_at'),
  },
  (table) => [index('links_study').on(table.studyId)],
);

/** Walks that are kept and walked again on every edit. */
export const respondents = sqliteTable(
  'respondents',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    walked: json<Walked>('walked').notNull(),
    /** What they were presented, and the marks of what was shown; see `core/routing/route-content.ts`. */
    items: json<string[]>('items').notNull(),
    marks: json<string[]>('marks').notNull(),
    /** The coded row, by column. */
    row: json<Record<string, number | string>>('row').notNull(),
    at: integer('at').notNull(),
  },
  (table) => [uniqueIndex('respondents_name').on(table.studyId, table.name)],
);

/** How the columns of collected files are matched to the codebook: what somebody said, for the next file. */
export const matches = sqliteTable('matches', {
  studyId: text('study_id')
    .primaryKey()
    .references(() => studies.id, { onDelete: 'cascade' }),
  /** By a column's name in the file, the codebook's name, or null for a column that is carried along. */
  said: json<Record<string, string | null>>('said').notNull(),
});

/** Coded rows that are kept to be tabulated. */
export const datasets = sqliteTable(
  'datasets',
  {
    id: text('id').primaryKey(),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** The file's name, in the person's words. */
    name: text('name').notNull(),
    rows: integer('rows').notNull(),
    /** CSV with the codebook's names in its first row, packed by gzip. */
    body: blob('body', { mode: 'buffer' }).notNull(),
    at: integer('at').notNull(),
    /** The revision of the study it was kept on, which tells the version; null of what is older than versions. */
    revision: integer('revision'),
  },
  (table) => [uniqueIndex('datasets_name').on(table.studyId, table.name)],
);

/** Paper forms that were keyed in; a case may be keyed twice, by two people, until the two are settled. */
export const cases = sqliteTable(
  'cases',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** What stands on the form. */
    caseId: text('case_id').notNull(),
    /** 1, or 2 for the second time. */
    entry: integer('entry').notNull(),
    keyedBy: text('keyed_by').notNull(),
    /** As they stand on the form, those that the routing passes over among them; null where it was left blank. */
    answers: json<Answers>('answers').notNull(),
    /** Who settled where two keyings differed; null while nobody has. */
    settledBy: text('settled_by'),
    at: integer('at').notNull(),
    /** The revision of the study it was keyed on, which tells the version; null of what is older than versions. */
    revision: integer('revision'),
  },
  (table) => [uniqueIndex('cases_entry').on(table.studyId, table.caseId, table.entry)],
);

/** Links under which real respondents answer a questionnaire, as it was when the link was made. */
export const trials = sqliteTable(
  'trials',
  {
    /** Cannot be guessed; what respondents are given. */
    token: text('token').primaryKey(),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** What the link is called by its author. */
    name: text('name').notNull(),
    /** Number of the version; null of a draft, which goes on without it. */
    version: integer('version'),
    /** The questionnaire as the text of its file, and the SHA-256 of that. */
    document: text('document').notNull(),
    checksum: text('checksum').notNull(),
    settings: json<TrialSettings>('settings').notNull(),
    state: text('state', { enum: TRIAL_STATES }).notNull(),
    /** Of the blocks in which arms are allotted. */
    seed: integer('seed').notNull(),
    /** How many responses were begun: the number of the last. */
    begun: integer('begun').notNull(),
    /** Of those who declined nothing is kept but how many they were. */
    declined: integer('declined').notNull(),
    /** Of those who stopped, where their answers are not kept: how many they were. */
    removed: integer('removed').notNull().default(0),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('trials_study').on(table.studyId)],
);

/** Questionnaires that those of a link are handed on to, as they were when the link was made. */
export const followUps = sqliteTable(
  'follow_ups',
  {
    token: text('token')
      .notNull()
      .references(() => trials.token, { onDelete: 'cascade' }),
    /** From 1; 0 is the questionnaire of the link itself. */
    number: integer('number').notNull(),
    /** As endings name it. */
    named: text('named').notNull(),
    /** Number of the version; null of a draft. */
    version: integer('version'),
    document: text('document').notNull(),
    checksum: text('checksum').notNull(),
    /** How many were handed on to it. */
    begun: integer('begun').notNull(),
  },
  (table) => [primaryKey({ columns: [table.token, table.number] })],
);

/** People who are each sent a link of their own. */
export const people = sqliteTable(
  'people',
  {
    /** In the address of their link; cannot be guessed. */
    key: text('key').primaryKey(),
    token: text('token')
      .notNull()
      .references(() => trials.token, { onDelete: 'cascade' }),
    /** From the sample: told to nobody but the authors. */
    name: text('name').notNull(),
    given: json<Answers>('given').notNull(),
    addedAt: integer('added_at').notNull(),
    /** They came to an ending, whichever, or declined: nobody writes to them again. */
    isSettled: integer('is_settled', { mode: 'boolean' }).notNull().default(false),
  },
  (table) => [uniqueIndex('people_name').on(table.token, table.name)],
);

/** Made-up panels: links whose people are made up, with a clock of their own. */
export const panels = sqliteTable('panels', {
  token: text('token')
    .primaryKey()
    .references(() => trials.token, { onDelete: 'cascade' }),
  settings: json<PanelSettings>('settings').notNull(),
  /** How late it is in the panel; milliseconds since 1970. */
  clock: integer('clock').notNull(),
});

/** Letters to members of a made-up panel, as they got them. Nothing of it leaves the machine. */
export const letters = sqliteTable(
  'letters',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    token: text('token')
      .notNull()
      .references(() => trials.token, { onDelete: 'cascade' }),
    /** Key of the person. */
    person: text('person')
      .notNull()
      .references(() => people.key, { onDelete: 'cascade' }),
    kind: text('kind', { enum: LETTERS }).notNull(),
    /** By the panel's clock. */
    at: integer('at').notNull(),
    subject: text('subject').notNull(),
    /** The link in it without the name of the server, which has several. */
    text: text('text').notNull(),
  },
  (table) => [
    uniqueIndex('letters_once').on(table.person, table.kind),
    index('letters_pile').on(table.token, table.at, table.kind),
  ],
);

/**
 * What respondents answered under a link: a row for each questionnaire that they were led through in one sitting. No address, and
 * nothing of their browser.
 */
export const responses = sqliteTable(
  'responses',
  {
    /** The key of the case. */
    id: text('id').primaryKey(),
    token: text('token')
      .notNull()
      .references(() => trials.token, { onDelete: 'cascade' }),
    /** From 1, in the order in which they were begun: the case id, which joins what was answered in one sitting. */
    number: integer('number').notNull(),
    /** From 0, in the order of the sitting. */
    part: integer('part').notNull().default(0),
    /** Number of the follow-up; 0 for the questionnaire of the link. */
    questionnaire: integer('questionnaire').notNull().default(0),
    /** By which somebody comes back to it from another browser. */
    code: text('code').notNull(),
    /** Who it is, as far as people are told apart: the key of their link, or a number that their browser keeps. */
    person: text('person'),
    kept: json<TurnedCase>('kept').notNull(),
    /** How it was closed; null while it is answered. */
    closedBy: text('closed_by', { enum: ['ending', 'stop', 'time'] }),
    /** Id of the ending; null where it has come to none. */
    ending: text('ending'),
    device: text('device', { enum: DEVICES }).notNull(),
    changedAt: integer('changed_at').notNull(),
  },
  (table) => [
    uniqueIndex('responses_part').on(table.token, table.number, table.part),
    uniqueIndex('responses_return').on(table.token, table.code, table.part),
    index('responses_person').on(table.token, table.person),
    // Looked at while somebody watches: the answers, which are long, stay unread.
    index('responses_marks').on(
      table.token,
      table.questionnaire,
      table.number,
      table.part,
      table.changedAt,
      table.closedBy,
      table.id,
    ),
  ],
);

/** Places that responses take in quotas, while they are answered and once they are complete. */
export const places = sqliteTable(
  'places',
  {
    responseId: text('response_id')
      .notNull()
      .references(() => responses.id, { onDelete: 'cascade' }),
    token: text('token').notNull(),
    quota: text('quota').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.responseId, table.quota] }),
    index('places_quota').on(table.token, table.quota),
  ],
);

/** Of respondents of whom nothing is kept: how many there were in an hour. */
export const counted = sqliteTable(
  'counted',
  {
    token: text('token')
      .notNull()
      .references(() => trials.token, { onDelete: 'cascade' }),
    what: text('what', { enum: ['declined', 'removed'] }).notNull(),
    /** When the hour began: finer than that nobody is to know. */
    at: integer('at').notNull(),
    count: integer('count').notNull(),
  },
  (table) => [primaryKey({ columns: [table.token, table.what, table.at] })],
);

/** Snags that somebody looked at and set aside, with the reason. */
export const asides = sqliteTable(
  'asides',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** The snag: its rule, place and message; see `snagKey` in `core/snags`. When one of them changes it comes back. */
    snag: text('snag').notNull(),
    reason: text('reason').notNull(),
    reviewer: text('reviewer').notNull(),
    at: integer('at').notNull(),
  },
  (table) => [uniqueIndex('asides_snag').on(table.studyId, table.snag)],
);

/** Remarks on a place of a questionnaire, open until somebody settles them. */
export const comments = sqliteTable(
  'comments',
  {
    id: integer('id').primaryKey({ autoIncrement: true }),
    studyId: text('study_id')
      .notNull()
      .references(() => studies.id, { onDelete: 'cascade' }),
    /** What it is about. */
    place: text('place').$type<Address>().notNull(),
    text: text('text').notNull(),
    author: text('author').notNull(),
    at: integer('at').notNull(),
    /** Who settled it and when; null while it is open. */
    settledBy: text('settled_by'),
    settledAt: integer('settled_at'),
    /** As with verdicts. */
    link: text('link'),
    revision: integer('revision'),
  },
  (table) => [index('comments_study').on(table.studyId)],
);

/** Questions, answer lists and sections kept for all studies. */
export const bank = sqliteTable('bank', {
  id: integer('id').primaryKey({ autoIncrement: true }),
  kind: text('kind', { enum: ['question', 'answers', 'section'] }).notNull(),
  title: text('title').notNull(),
  /** As in a questionnaire file, as JSON text; see `core/editing/bank.ts`. */
  content: text('content').notNull(),
  at: integer('at').notNull(),
});

/** Browsers that are signed in, where signing in is asked for. */
export const sessions = sqliteTable('sessions', {
  /** Of the token that the browser holds, keyed by the passphrase; see `server/passphrase.ts`. */
  checksum: text('checksum').primaryKey(),
  /** The name that was given on signing in. */
  author: text('author').notNull(),
  createdAt: integer('created_at').notNull(),
  /** Of the last request, to the minute. */
  seenAt: integer('seen_at').notNull(),
});

/** What is the installation's own, whatever its settings are. */
export const installation = sqliteTable('installation', {
  name: text('name').primaryKey(),
  value: text('value').notNull(),
});
