/** What the ledger asks the worker for: which routes, in which order. Numbers of routes are decimal strings. */
import * as v from 'valibot';
import { MOST_THROUGH } from '../core/analysis';

export const NumberText = v.pipe(v.string(), v.regex(/^\d+$/, 'a route number is written in digits'));

const Index = v.pipe(v.number(), v.integer(), v.minValue(0));
const Names = v.array(v.string());

export const ORDERS = ['canonical', 'shortest', 'longest', 'forks', 'pairs', 'likeliest'] as const;

export const ListQuerySchema = v.strictObject({
  /** Of each list at least one item is presented: `name` in any pass, `name#pass` in one. */
  through: v.pipe(v.array(Names), v.maxLength(MOST_THROUGH)),
  /** None of these items is presented. */
  avoid: Names,
  ending: v.nullable(v.string()),
  /** Skips and onward entries that somebody on the route takes, all of them on one walk. */
  taking: v.array(
    v.union([
      v.strictObject({ item: v.string(), skip: Index }),
      v.strictObject({ section: v.string(), onward: Index }),
    ]),
  ),
  /** Conditions that read one question each: somebody on the route gives all of these answers. */
  answering: v.array(v.string()),
  /**
   * `forks` and `pairs`: those that take every fork, or every two together, in front of the others, as far as they are known;
   * `likeliest`: just these.
   */
  order: v.picklist(ORDERS),
  /** Routes that differ only in what was drawn are one row. */
  folded: v.boolean(),
  /** Only routes that the questionnaire last named by `since` does not have. */
  touched: v.boolean(),
  /** Routes left out; and, where it is not null, the only ones that are listed, in this order. */
  leaveOut: v.array(NumberText),
  only: v.nullable(v.array(NumberText)),
  /** Routes that stand in front of the others, those of them that are listed. */
  front: v.array(NumberText),
});

export type ListQuery = v.InferOutput<typeof ListQuerySchema>;
export type ListOrder = ListQuery['order'];

export const ALL_ROUTES: ListQuery = {
  through: [],
  avoid: [],
  ending: null,
  taking: [],
  answering: [],
  order: 'canonical',
  folded: false,
  touched: false,
  leaveOut: [],
  only: null,
  front: [],
};

export interface ListSummary {
  readonly total: string;
  /** Whether `total` is all there are, or proven to be no more than there are. */
  readonly exact: boolean;
  /** How many rows stand in front because of the order. */
  readonly front: number;
  /** Why there is no list: telling these routes apart is too entangled, or what they are compared with is not known. */
  readonly refused: 'entangled' | null;
}
