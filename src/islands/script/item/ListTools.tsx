/** What can be done with an answer list as a whole: put a common one or another question's in its place, order, number. */
import { useState } from 'react';
import type { Question } from '../../../core/document/types';
import {
  COMMON_LISTS,
  orderOptions,
  questionsWithLists,
  renumbering,
  withCommonList,
  withListOf,
  type CommonList,
} from '../../../core/editing/lists';
import { recode, recodeProblem } from '../../../core/editing/recode';
import type { ItemPlace } from '../../../core/editing/structure';
import { useStudy } from '../../state/store';
import { Problem } from '../../ui/Problem';
import classes from './details.module.css';

export function ListTools({ question, place }: { readonly question: Question; readonly place: ItemPlace }) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const others = questionsWithLists(document, question.name);
  const renumber = () => {
    const recoding = renumbering(question);
    return recodeProblem(document, place, recoding) ?? commit(recode(document, place, recoding));
  };
  const run = (what: string): string | null => {
    const [kind, name = ''] = what.split(/:(.*)/);
    if (kind === 'common') return commit(withCommonList(place, name as CommonList));
    if (kind === 'as') {
      const from = others.find((other) => other.name === name);
      return from === undefined ? null : commit(withListOf(place, from));
    }
    if (what === 'renumber') return renumber();
    return commit(orderOptions(place, what === 'reverse' ? 'reversed' : 'by words'));
  };
  return (
    <>
      <select
        className={classes.adder}
        aria-label={`Answer list of ${question.name}`}
        value=""
        onChange={(event) => setProblem(run(event.target.value))}
      >
        <option value="" disabled>
          List …
        </option>
        <optgroup label="This list">
          <option value="renumber">number from 1</option>
          <option value="sort">order by words</option>
          <option value="reverse">turn round</option>
        </optgroup>
        <optgroup label="Common lists">
          {Object.keys(COMMON_LISTS).map((list) => (
            <option key={list} value={`common:${list}`}>
              {list}
            </option>
          ))}
        </optgroup>
        {others.length > 0 && (
          <optgroup label="Same answers as">
            {others.map(({ name }) => (
              <option key={name} value={`as:${name}`}>
                {name}
              </option>
            ))}
          </optgroup>
        )}
      </select>
      <Problem of={problem} as="span" className={classes.wrong} />
    </>
  );
}
