/** The human check: a small task that shows that a person answers, before the first page. Never part of a route. */

export interface HumanCheck {
  /** What the respondent reads, or hears read out. */
  readonly task: string;
  /** Whether what they wrote does it: in digits or in words. */
  solves(written: string): boolean;
}

const WORDS = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
const ORDER = ['smallest', 'largest'] as const;

/** Three different numbers in words, of which one is asked for; another task for the seeds that follow each other. */
export function humanCheckOf(seed: number): HumanCheck {
  const number = Math.abs(seed);
  const first = number % WORDS.length;
  const second = (first + 1 + (Math.floor(number / 11) % 5)) % WORDS.length;
  const third = (second + 1 + (Math.floor(number / 55) % 4)) % WORDS.length;
  const numbers = [first, second, third];
  const wanted = ORDER[Math.floor(number / 220) % 2] as (typeof ORDER)[number];
  const answer = wanted === 'smallest' ? Math.min(...numbers) : Math.max(...numbers);
  return {
    task: `Which of these numbers is the ${wanted}: ${numbers.map((n) => WORDS[n]).join(', ')}?`,
    solves: (written) => [String(answer), WORDS[answer]].includes(written.trim().toLowerCase()),
  };
}
