/** The stops of a study, in working order, as far as they do their work. */

export const STOPS = ['script', 'forks', 'routes', 'walk', 'codes', 'forecast', 'release'] as const;
export type Stop = (typeof STOPS)[number];

export const STOP_NAMES: Readonly<Record<Stop, string>> = {
  script: 'Script',
  forks: 'Forks',
  routes: 'Routes',
  walk: 'Walk',
  codes: 'Codes',
  forecast: 'Forecast',
  release: 'Release',
};

export function isStop(text: string): text is Stop {
  return (STOPS as readonly string[]).includes(text);
}

/** The stops at which a version can be looked at, which never changes. */
export const VERSION_STOPS: readonly Stop[] = ['script', 'forks', 'routes', 'walk', 'codes', 'forecast'];

export function isVersionStop(text: string): text is Stop {
  return (VERSION_STOPS as readonly string[]).includes(text);
}

/** The stops of a reviewer, who changes nothing. */
export const REVIEW_STOPS: readonly Stop[] = ['script', 'routes', 'walk'];

export function isReviewStop(text: string): text is Stop {
  return (REVIEW_STOPS as readonly string[]).includes(text);
}
