/** The keys of each view, as the list under `?` tells them. */
import type { Stop } from '../state/stops';

/** Keys, and what they do. */
export type Shortcut = readonly [string, string];

export const EVERYWHERE: readonly Shortcut[] = [
  ['Ctrl+K', 'find anything, and replace'],
  ['Ctrl+Z', 'take back the last change'],
  ['Ctrl+Shift+Z', 'do it again'],
  ['Escape', 'close a list or panel; out of a field, to what it belongs to'],
  ['?', 'this list'],
];

export const SHORTCUTS: Readonly<Record<Stop, readonly Shortcut[]>> = {
  script: [
    ['↑ ↓', 'from item to item; with Shift several are selected'],
    ['Enter', 'a new question below; in its words, on to the answers'],
    ['Ctrl+Enter', 'in words or answers: a new question below'],
    ['Alt+↑ ↓', 'move an item, an answer or a section'],
    ['Ctrl+D', 'copy the selected items'],
    ['Delete', 'delete the selected items'],
    ['Ctrl+V', 'several lines: looked at as a list of questions, then put in'],
    ['Enter', 'in an answer: on to the next, or a new one; an empty one ends the list'],
    ['Shift+Enter', 'in an answer: a new one right below'],
    ['Alt+→', 'in an answer: where it leads'],
    ['{', 'in words: pipe an answer in'],
    ['← →', 'on the heading of a section: fold it away, or unfold it'],
  ],
  forks: [
    ['↑ ↓', 'along the flow'],
    ['← →', 'from one way to the next beside it'],
    ['Enter', 'unfold a section, or open what is chosen'],
    ['+ -', 'nearer, and further away'],
    ['F', 'fit the whole map'],
    ['Escape', 'choose nothing'],
  ],
  routes: [
    ['↑ ↓', 'from route to route; Page Up, Page Down, Home and End go far'],
    ['← →', 'from item to item, with why it is asked or not'],
    ['Enter', 'walk the route'],
  ],
  walk: [
    ['0 to 9', 'choose an answer: the page says by what'],
    ['Tab', 'on to the next question'],
    ['Enter', 'on to the next page'],
    ['Ctrl+Enter', 'on to the next page, also out of a long text'],
  ],
  codes: [
    ['Enter', 'Key in: take a value over and go on; after the last field, the next form'],
    ['↑ ↓', 'Key in: from field to field'],
    ['Ctrl+Z', 'Key in: take the last field back'],
  ],
  forecast: [
    ['← →', 'on a tick of a ruler: a point less, a point more; with Shift five, Page ↑ ↓ ten'],
    ['Enter', 'on a name: type its shares; in a number: keep it'],
    ['Escape', 'give a number back as it was; out of the slip of a base, back to its row'],
    ['↑ ↓', 'from base to base; → into its slip'],
  ],
  release: [['Escape', 'close a form without keeping or freezing anything']],
};
