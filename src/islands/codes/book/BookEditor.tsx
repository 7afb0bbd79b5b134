/** The open row: codes and words of the answers, missing codes of its own, level of measurement. */
import { address } from '../../../core/document/addresses';
import { traitsOf, type Measure } from '../../../core/document/answer-types';
import { optionsOf } from '../../../core/document/shape';
import type { Question } from '../../../core/document/types';
import type { BookRow } from '../../../core/views/codebook';
import { useGoTo } from '../../state/going';
import { CheckedField, NumberField } from '../../fields/Fields';
import { useStudy } from '../../state/store';
import { useBookEdits } from './edits';
import classes from './book.module.css';

interface Props {
  readonly row: BookRow;
  readonly question: Question;
}

const MEASURES: readonly Measure[] = ['nominal', 'ordinal', 'interval', 'ratio'];

export function BookEditor({ row, question }: Props) {
  const { setMeasure, setMissing, setOptionCode, setOptionLabel } = useBookEdits(row);
  const missing = useStudy((state) => state.document.missing);
  const select = useStudy((state) => state.select);
  const goTo = useGoTo();
  const options = optionsOf(question.answer);
  const own = question.missingCodes ?? {};
  return (
    <div role="cell" className={classes.editor}>
      {options.length > 0 && (
        <fieldset>
          <legend>Answers</legend>
          {options.map((option, at) => (
            <div key={at}>
              <NumberField
                field={`book/${question.name}/code/${at}`}
                className={classes.code}
                label={`Code of “${option.label}”`}
                value={option.code}
                whole
                take={(code) =>
                  code === undefined ? 'An answer has a code.' : setOptionCode(option.code, code)
                }
              />
              <CheckedField
                field={`book/${question.name}/words/${at}`}
                className={classes.field}
                label={`Words of answer ${at + 1}`}
                value={option.label}
                take={(label) => setOptionLabel(at, label)}
              />
            </div>
          ))}
        </fieldset>
      )}
      <fieldset>
        <legend>Missing codes of its own</legend>
        {missing.map(({ reason, code, label }) => (
          <div key={reason}>
            <NumberField
              field={`book/${question.name}/missing/${reason}`}
              className={classes.code}
              label={`Code of ${question.name} for ${label}`}
              value={own[reason] ?? code}
              whole
              optional
              take={(to) => setMissing(reason, to === undefined || to === code ? null : to)}
            />
            <span>{label}</span>
          </div>
        ))}
      </fieldset>
      <fieldset>
        <legend>Level of measurement</legend>
        <select
          aria-label={`Level of measurement of ${question.name}`}
          value={question.measure ?? ''}
          onChange={(event) => setMeasure(MEASURES.find((each) => each === event.target.value) ?? null)}
        >
          <option value="">{traitsOf(question.answer).measure}, as the type suggests</option>
          {MEASURES.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
        <button
          type="button"
          onClick={() => {
            select(address('item', question.name));
            goTo('script');
          }}
        >
          Open in the Script
        </button>
      </fieldset>
    </div>
  );
}
