/** What stands under an option: its usual code, what it asks to be specified, whom it is shown to, its picture. */
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { editOption } from '../../../core/editing/options';
import { recode, recodeProblem } from '../../../core/editing/recode';
import type { ItemPlace } from '../../../core/editing/structure';
import { CheckedField } from '../../fields/Fields';
import { PictureFields } from '../../fields/PictureFields';
import { useStudy } from '../../state/store';
import answersClasses from './answers.module.css';
import detailsClasses from './details.module.css';
import type { OptionRowProps } from './OptionRow';
import { ShownIf } from './ShownIf';

interface Props extends Pick<OptionRowProps, 'question' | 'option' | 'o' | 'place' | 'list'> {
  /** The code that such an answer has as a rule; null where it has it. */
  readonly usual: number | null;
}

export function OptionMore({ question, option, o, place, list, usual }: Props) {
  const { askIf, image, specify } = option;
  if (askIf === undefined && image === undefined && !specify && usual === null) return null;
  return (
    <div className={answersClasses.optionMore}>
      {usual !== null && <UsualCode code={option.code} usual={usual} place={place} />}
      {specify && <SpecifyWords question={question} option={option} o={o} place={place} />}
      {askIf !== undefined && (
        <ShownIf
          field={fieldId(question.name, 'optionIf', option.code)}
          label={`Answer ${o + 1} is shown if`}
          value={askIf}
          place={place}
          isProblem={({ at }) => at.item === question.name && at.option === option.code}
          change={(text) => list.setAskIf(o, text)}
        />
      )}
      {image !== undefined && (
        <span className={detailsClasses.picture}>
          <PictureFields
            image={image}
            field={fieldId(question.name, 'optionImage', option.code)}
            change={(changed) => list.setImage(o, changed)}
          />
          <button
            type="button"
            className={answersClasses.takeOut}
            aria-label={`Answer ${o + 1} without a picture`}
            onClick={() => list.setImage(o, undefined)}
          >
            ×
          </button>
        </span>
      )}
    </div>
  );
}

type SpecifyProps = Pick<Props, 'question' | 'option' | 'o' | 'place'>;

function SpecifyWords({ question, option, o, place }: SpecifyProps) {
  const commit = useStudy((state) => state.commit);
  return (
    <div className={answersClasses.specifyWords}>
      <span>asks</span>
      <CheckedField
        field={fieldId(question.name, 'specify', option.code)}
        label={`What is asked with answer ${o + 1}`}
        value={option.specifyLabel ?? ''}
        placeholder="please specify"
        size={30}
        take={(text) =>
          commit(
            editOption(place, o, 'specify', 'Change what an answer asks', (draft) => {
              if (text.trim() === '') delete draft.specifyLabel;
              else draft.specifyLabel = text.trim();
            }),
          )
        }
      />
      {question.required === true && (
        <label>
          <input
            type="checkbox"
            checked={option.specifyOptional === true}
            onChange={(event) =>
              commit(
                editOption(place, o, 'specifyOptional', 'Change what an answer asks', (draft) => {
                  if (event.target.checked) draft.specifyOptional = true;
                  else delete draft.specifyOptional;
                }),
              )
            }
          />{' '}
          may be left empty
        </label>
      )}
    </div>
  );
}

interface UsualCodeProps {
  readonly code: number;
  readonly usual: number;
  readonly place: ItemPlace;
}

/** Offers the code that such answers have as a rule; what names the old one goes along. */
function UsualCode({ code, usual, place }: UsualCodeProps) {
  const document = useStudy((state) => state.document);
  const commit = useStudy((state) => state.commit);
  const [problem, setProblem] = useState<string | null>(null);
  const give = () => {
    const recoding = new Map([[code, usual]]);
    setProblem(recodeProblem(document, place, recoding) ?? commit(recode(document, place, recoding)));
  };
  return (
    <span>
      <button type="button" onClick={give}>
        Give it the usual code {usual}
      </button>
      {problem !== null && <span role="alert"> {problem}</span>}
    </span>
  );
}
