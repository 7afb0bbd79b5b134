/** What is written of a selected section under its title: whom it is asked of, its introduction. */
import { useState } from 'react';
import { fieldId } from '../../../core/document/addresses';
import { sectionLetter } from '../../../core/document/variables';
import { editSection } from '../../../core/editing/structure';
import type { PlanSection } from '../../../core/routing/plan';
import { ConditionField } from '../../fields/ConditionField';
import { ConditionPicker } from '../../fields/ConditionPicker';
import { thenFocus } from '../../fields/focus';
import { RichField } from '../../fields/RichField';
import { useStudy } from '../../state/store';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import detailsClasses from '../item/details.module.css';

export function SectionFields({ planSection: { section, index } }: { readonly planSection: PlanSection }) {
  const commit = useStudy((state) => state.commit);
  const [picking, setPicking] = useState(false);
  const set = (field: 'askIf' | 'intro', text: string | undefined) =>
    commit(
      editSection(index, field, `Change section ${sectionLetter(index)}`, (draft) => {
        if (text === undefined) delete draft[field];
        else draft[field] = text;
      }),
    );
  const place = { section: index, item: 0 };
  return (
    <>
      {section.askIf !== undefined && (
        <div className={askIfClasses.askIfEditor}>
          <span>ask if</span>
          <div>
            <ConditionField
              field={fieldId('@section', section.id, 'askIf')}
              label="The section is asked if"
              value={section.askIf}
              place={place}
              isProblem={({ at, field }) =>
                at.section === section.id && at.onward === undefined && field === 'askIf'
              }
              change={(text) => set('askIf', text)}
            />
            {picking && (
              <ConditionPicker place={place} value={section.askIf} change={(text) => set('askIf', text)} />
            )}
          </div>
          <button type="button" aria-expanded={picking} onClick={() => setPicking(!picking)}>
            Pick
          </button>
          <button type="button" onClick={() => set('askIf', undefined)}>
            Ask all
          </button>
        </div>
      )}
      {section.intro !== undefined && (
        <div className={blockClasses.intro}>
          <RichField
            field={fieldId('@section', section.id, 'intro')}
            label="Introduction"
            value={section.intro}
            place={place}
            placeholder="What respondents read first"
            change={(text) => set('intro', text)}
          />
        </div>
      )}
      <div className={detailsClasses.extras}>
        {section.askIf === undefined && (
          <button
            type="button"
            onClick={() => thenFocus(() => set('askIf', ''), fieldId('@section', section.id, 'askIf'))}
          >
            Ask all, or only if …
          </button>
        )}
        <button
          type="button"
          onClick={() =>
            section.intro === undefined
              ? thenFocus(() => set('intro', ''), fieldId('@section', section.id, 'intro'))
              : set('intro', undefined)
          }
        >
          {section.intro === undefined ? 'Add an introduction' : 'Remove the introduction'}
        </button>
      </div>
    </>
  );
}
