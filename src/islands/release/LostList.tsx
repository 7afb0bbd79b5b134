/** What a file cannot hold, each with its place; folded, since it can be long. */
import type { Questionnaire } from '../../core/document/types';
import type { Loss } from '../../core/release/format-types';
import { placeAt } from '../../core/routing/problems';
import { placeWords } from '../../core/wording/places';
import classes from './files.module.css';

interface Props {
  readonly words: string;
  readonly lost: readonly Loss[];
  /** That the file is of. */
  readonly document: Questionnaire;
}

export function LostList({ words, lost, document }: Props) {
  return (
    <details className={classes.lost}>
      <summary>{words}</summary>
      <ul>
        {lost.map(({ at, what }, n) => (
          <li key={n}>
            {placeWords(document, placeAt(at))}: {what}
          </li>
        ))}
      </ul>
    </details>
  );
}
