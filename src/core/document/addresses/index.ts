/**
 * Words that say which part of a questionnaire is meant: nowhere else is one made or taken apart.
 *
 * They are text, so that they can stand in files, links, the page and the database; a brand keeps one from being taken for
 * another. Text from outside becomes one by the `parse` of its kind alone, which gives null for what is none. None looks at
 * a questionnaire: what it names may be gone.
 */
export * from './pass-key';
export * from './address';
export * from './part';
export * from './field';
export * from './way';
