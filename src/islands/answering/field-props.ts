/** What every field takes in which an answer is given. */
import type { Value } from '../../core/document/types';

export interface FieldProps {
  /** Names the radios and finds the field: item key and variable. */
  readonly part: string;
  readonly label: string;
  readonly value: Value | null;
  readonly set: (value: Value | null) => void;
  readonly words: (text: string) => string;
  readonly codes: boolean;
}
