/**
 * Response, cooperation, refusal and contact rates of a sample of people who are known by name and invited, after the American
 * Association for Public Opinion Research, *Standard Definitions* (9th edition, 2016), “Internet surveys of specifically named persons”.
 */

/** People by final disposition, in the letters of the source. */
export interface Dispositions {
  /** I: complete interviews, those who were handed on among them. */
  readonly complete: number;
  /** P: partial interviews. */
  readonly partial: number;
  /** R: refusals and break-offs. Who declines is taken for one who is meant. */
  readonly refusal: number;
  /** UH and UO: nothing was heard of them, or they are still at it. */
  readonly unknown: number;
  /** Screened out, or one of a group of which there were enough: not among the eligible. */
  readonly ineligible: number;
  /** Of the refusals and break-offs, those who had come past the screening. */
  readonly eligibleRefusal: number;
}

export const RATE_KINDS = [
  'response',
  'response_partial',
  'cooperation',
  'cooperation_partial',
  'refusal',
  'contact',
] as const;
export type RateKind = (typeof RATE_KINDS)[number];

/** How many of the unknown are taken for eligible: each of them, the share `e` of them, or none. */
export const UNKNOWN_AS = ['all', 'share', 'none'] as const;
export type UnknownAs = (typeof UNKNOWN_AS)[number];

export interface Rate {
  readonly kind: RateKind;
  readonly unknown: UnknownAs;
  /** As the source calls it: RR1. */
  readonly name: string;
  /** In its letters. */
  readonly formula: string;
  readonly numerator: number;
  /** Not whole where a share of the unknown is in it; 0: there is no rate. */
  readonly denominator: number;
}

/**
 * No letter is sent back undelivered here, and nobody is otherwise unable to answer: NC and O are nought, and left out. So COOP3 is
 * COOP1, COOP4 is COOP2, and CON3 is always 1.
 */
const FORMULAS: readonly Omit<Rate, 'numerator' | 'denominator'>[] = [
  { kind: 'response', unknown: 'all', name: 'RR1', formula: 'I / (I + P + R + U)' },
  { kind: 'response', unknown: 'share', name: 'RR3', formula: 'I / (I + P + R + e·U)' },
  { kind: 'response', unknown: 'none', name: 'RR5', formula: 'I / (I + P + R)' },
  { kind: 'response_partial', unknown: 'all', name: 'RR2', formula: '(I + P) / (I + P + R + U)' },
  { kind: 'response_partial', unknown: 'share', name: 'RR4', formula: '(I + P) / (I + P + R + e·U)' },
  { kind: 'response_partial', unknown: 'none', name: 'RR6', formula: '(I + P) / (I + P + R)' },
  { kind: 'cooperation', unknown: 'none', name: 'COOP1', formula: 'I / (I + P + R)' },
  { kind: 'cooperation_partial', unknown: 'none', name: 'COOP2', formula: '(I + P) / (I + P + R)' },
  { kind: 'refusal', unknown: 'all', name: 'REF1', formula: 'R / (I + P + R + U)' },
  { kind: 'refusal', unknown: 'share', name: 'REF2', formula: 'R / (I + P + R + e·U)' },
  { kind: 'refusal', unknown: 'none', name: 'REF3', formula: 'R / (I + P + R)' },
  { kind: 'contact', unknown: 'all', name: 'CON1', formula: '(I + P + R) / (I + P + R + U)' },
  { kind: 'contact', unknown: 'share', name: 'CON2', formula: '(I + P + R) / (I + P + R + e·U)' },
];

/**
 * `e`: the share of the eligible among those of whom it is known, by proportional allocation; those who left before the end of the
 * screening are known of neither way. 1 where it is known of nobody.
 */
export function eligibleShare({ complete, partial, eligibleRefusal, ineligible }: Dispositions): number {
  const eligible = complete + partial + eligibleRefusal;
  return eligible + ineligible === 0 ? 1 : eligible / (eligible + ineligible);
}

export function ratesOf(of: Dispositions): Rate[] {
  const { complete, partial, refusal, unknown } = of;
  const heard = complete + partial + refusal;
  const weight: Readonly<Record<UnknownAs, number>> = { all: 1, share: eligibleShare(of), none: 0 };
  const over: Readonly<Record<RateKind, number>> = {
    response: complete,
    response_partial: complete + partial,
    cooperation: complete,
    cooperation_partial: complete + partial,
    refusal,
    contact: heard,
  };
  return FORMULAS.map((formula) => ({
    ...formula,
    numerator: over[formula.kind],
    denominator: heard + weight[formula.unknown] * unknown,
  }));
}
