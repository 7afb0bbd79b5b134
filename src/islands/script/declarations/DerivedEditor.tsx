/** A derived variable: the first case that holds, or a sum; with a line to try it on answers. */
import { castDraft, type Draft } from 'immer';
import { address, fieldId } from '../../../core/document/addresses';
import type { Derived } from '../../../core/document/types';
import { editDeclaration } from '../../../core/editing/declarations';
import { useStudy } from '../../state/store';
import { CheckedField } from '../../fields/Fields';
import { NamedField } from '../../fields/NamedField';
import { DeclarationLabel } from './DeclarationLabel';
import answersClasses from '../item/answers.module.css';
import askIfClasses from '../item/ask-if.module.css';
import blockClasses from '../item/block.module.css';
import casesClasses from './declarations.module.css';
import detailsClasses from '../item/details.module.css';
import { DerivedCases } from './DerivedCases';
import { TryIt } from './TryIt';

export function DerivedPrint({ derived }: { readonly derived: Derived }) {
  return (
    <>
      <div className={blockClasses.name}>
        {derived.name}
        <small>{'cases' in derived ? 'cases' : 'sum'}</small>
      </div>
      <div>
        <div className={blockClasses.question}>{derived.label}</div>
        {'cases' in derived ? (
          <div className={answersClasses.answers}>
            {derived.cases.map(({ if: condition, code, label }, c) => (
              <div key={c}>
                <span className={answersClasses.label}>
                  {label} <small>{condition}</small>
                </span>
                <span className={answersClasses.dots} />
                <span className={answersClasses.code}>{code}</span>
                <span className={answersClasses.lead} />
              </div>
            ))}
            {derived.else !== undefined && (
              <div>
                <span className={answersClasses.label}>
                  {derived.else.label} <small>otherwise</small>
                </span>
                <span className={answersClasses.dots} />
                <span className={answersClasses.code}>{derived.else.code}</span>
                <span className={answersClasses.lead} />
              </div>
            )}
          </div>
        ) : (
          <div className={askIfClasses.askIf}>{derived.value}</div>
        )}
      </div>
    </>
  );
}

export function DerivedEditor({ derived, at }: { readonly derived: Derived; readonly at: number }) {
  const commit = useStudy((state) => state.commit);
  const plan = useStudy((state) => state.plan);
  const snags = useStudy((state) => state.snags);
  const { name, label } = derived;
  const edit = (field: string, change: (draft: Draft<Derived>) => void) =>
    commit(editDeclaration('derived', at, field, `Change ${name}`, change));
  const wrong = snags.filter((snag) => snag.at.derived === name && snag.field === 'value');
  return (
    <>
      <div className={blockClasses.name}>
        <NamedField
          field={fieldId('@derived', at, 'name')}
          name={name}
          selection={(to) => address('derived', to)}
        />
        <select
          className={blockClasses.type}
          aria-label="How it is worked out"
          value={'cases' in derived ? 'cases' : 'value'}
          onChange={(event) => {
            const fresh: Derived =
              event.target.value === 'cases'
                ? { name, label, cases: [{ if: 'always', code: 1, label: '' }] }
                : { name, label, value: '0' };
            edit('kind', (draft) => {
              for (const key of Object.keys(draft)) Reflect.deleteProperty(draft, key);
              Object.assign(draft, castDraft(fresh));
            });
          }}
        >
          <option value="cases">cases</option>
          <option value="value">sum</option>
        </select>
      </div>
      <div>
        <DeclarationLabel
          field={fieldId('@derived', at, 'label')}
          says="What it says"
          placeholder="What it says, for the codebook"
          value={label}
          edit={edit}
        />
        {'cases' in derived ? (
          <DerivedCases derived={derived} at={at} edit={edit} />
        ) : (
          <div className={askIfClasses.askIfEditor}>
            <span>comes to</span>
            <div>
              <CheckedField
                field={fieldId('@derived', at, 'value')}
                label="The sum"
                className={casesClasses.formula}
                value={derived.value}
                size={44}
                placeholder="q1 + q2 - 2 * q3"
                take={(text) =>
                  edit('value', (draft) => {
                    if ('value' in draft) draft.value = text;
                  })
                }
              />
              {wrong.map(({ message }, n) => (
                <p key={n} className={detailsClasses.wrong}>
                  {message}
                </p>
              ))}
            </div>
          </div>
        )}
        <TryIt plan={plan} name={name} at={at} />
      </div>
    </>
  );
}
