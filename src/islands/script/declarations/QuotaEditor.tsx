/** A quota: of whom there are to be how many, after which question it is tried, and where those over it go. */
import type { Draft } from 'immer';
import { useState } from 'react';
import { address, fieldId } from '../../../core/document/addresses';
import { idProblem } from '../../../core/document/names';
import type { Quota } from '../../../core/document/types';
import { editDeclaration, quotaQuestions } from '../../../core/editing/declarations';
import { targetWords } from '../../../core/wording/targets';
import { useStudy } from '../../state/store';
import { ConditionField } from '../../fields/ConditionField';
import { CheckedField, NumberField } from '../../fields/Fields';
import { DeclarationLabel } from './DeclarationLabel';
import answersClasses from '../item/answers.module.css';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import casesClasses from './declarations.module.css';
import detailsClasses from '../item/limits.module.css';
import fields from '../../fields/fields.module.css';
import { TargetPicker } from '../../fields/TargetPicker';

export function QuotaPrint({ quota }: { readonly quota: Quota }) {
  const document = useStudy((state) => state.document);
  return (
    <>
      <div className={blockClasses.name}>
        {quota.id}
        <small>quota</small>
      </div>
      <div>
        <div className={blockClasses.question}>{quota.label}</div>
        <div className={blockClasses.note}>
          {quota.target} of those with <code>{quota.if}</code>, tried after <code>{quota.at}</code>; once full
          → {targetWords(document, quota.to)}
        </div>
      </div>
    </>
  );
}

export function QuotaEditor({ quota, at }: { readonly quota: Quota; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const select = useStudy((state) => state.select);
  const document = useStudy((state) => state.document);
  const [aiming, setAiming] = useState(false);
  const { id, label } = quota;
  const edit = (field: string, change: (draft: Draft<Quota>) => void) =>
    commit(editDeclaration('quotas', at, field, `Change quota ${id}`, change));
  const section = document.sections.findIndex(({ items }) =>
    items.some((item) => item.kind !== 'page_break' && item.name === quota.at),
  );
  const item =
    document.sections[section]?.items.findIndex(
      (each) => each.kind !== 'page_break' && each.name === quota.at,
    ) ?? -1;
  const questions = quotaQuestions(document);
  return (
    <>
      <div className={blockClasses.name}>
        <CheckedField
          field={fieldId('@quota', at, 'id')}
          label="Short name of the quota"
          className={fields.name}
          value={id}
          size={13}
          take={(typed) => {
            const problem = idProblem(typed.trim());
            if (problem !== null) return `${problem.charAt(0).toUpperCase()}${problem.slice(1)}.`;
            if (document.quotas?.some((other, n) => n !== at && other.id === typed.trim()))
              return `“${typed.trim()}” is another quota already: choose another name.`;
            const refused = edit('id', (draft) => void (draft.id = typed.trim()));
            if (refused === null) select(address('quota', typed.trim()));
            return refused;
          }}
        />
        <small>quota</small>
      </div>
      <div>
        <DeclarationLabel
          field={fieldId('@quota', at, 'label')}
          says="What the quota is of"
          placeholder="Of whom there are to be only so many"
          value={label}
          edit={edit}
        />
        <div className={askIfClasses.askIfEditor}>
          <span>of those with</span>
          <div>
            <ConditionField
              field={fieldId('@quota', at, 'if')}
              label="Who counts for the quota"
              value={quota.if}
              place={{ section: Math.max(0, section), item: item + 1 }}
              isProblem={(snag) => snag.at.quota === id && snag.field === 'if'}
              change={(text) => edit('if', (draft) => void (draft.if = text))}
              placeholder="always"
            />
          </div>
        </div>
        <div className={detailsClasses.limits}>
          <label>
            there are to be{' '}
            <NumberField
              field={fieldId('@quota', at, 'target')}
              label="How many there are to be"
              className={detailsClasses.limit}
              value={quota.target}
              whole
              take={(target) => edit('target', (draft) => void (draft.target = target as number))}
            />
          </label>
          <label>
            tried after{' '}
            <select
              className={detailsClasses.limit}
              aria-label="The question after which it is tried"
              value={quota.at}
              onChange={(event) => edit('at', (draft) => void (draft.at = event.target.value))}
            >
              {!questions.includes(quota.at) && <option value={quota.at}>{quota.at} (does not fit)</option>}
              {questions.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
          <span className={answersClasses.aim}>
            once full{' '}
            <button
              type="button"
              className={casesClasses.choice}
              aria-expanded={aiming}
              onClick={() => setAiming(!aiming)}
            >
              → {targetWords(document, quota.to)}
            </button>
            {aiming && (
              <TargetPicker
                section={Math.max(0, section)}
                item={Math.max(0, item)}
                none={null}
                close={() => setAiming(false)}
                choose={(target) => {
                  setAiming(false);
                  if (target !== null) edit('to', (draft) => void (draft.to = target));
                }}
              />
            )}
          </span>
        </div>
      </div>
    </>
  );
}
