/** One skip as a sentence with its target; opened, its condition can be written or picked. */
import { useState, type ComponentProps } from 'react';
import { parseCondition } from '../../core/condition/parse';
import { fieldId } from '../../core/document/addresses';
import type { Skip } from '../../core/document/types';
import type { Plan } from '../../core/routing/plan';
import { conditionSentence } from '../../core/wording/sentence';
import { targetWords } from '../../core/wording/targets';
import { ConditionField } from '../fields/ConditionField';
import { ConditionPicker } from '../fields/ConditionPicker';
import { VariableName } from '../ui/VariableName';
import { AimButton } from './AimButton';
import { Rewrite } from './Rewrite';
import rows from './rows.module.css';
import type { SkipRulesProps } from './SkipRules';
import { TakenBy } from './taken-by';

interface Props extends SkipRulesProps {
  readonly skip: Skip;
  readonly index: number;
  readonly count: ComponentProps<typeof TakenBy>['count'];
  readonly open: boolean;
  readonly setOpen: (open: boolean) => void;
}

export function SkipRule(props: Props) {
  const { plan, place, skips, from, leaves, skip, index, count, open, setOpen } = props;
  const replace = (changed: Skip, field: string) =>
    props.change(
      skips.map((other, n) => (n === index ? changed : other)),
      `skips ${index} ${field}`,
      'Change a skip',
    );
  return (
    <div className={rows.skip}>
      <div className={rows.pair}>
        <button
          type="button"
          className={rows.sentence}
          aria-expanded={open}
          title={skip.if ?? 'always'}
          onClick={() => setOpen(!open)}
        >
          {wordsOf(plan, skip, index, skips.length)}
        </button>
        <AimButton
          section={place.section}
          from={from}
          label={`Target of skip ${index + 1}`}
          choose={(to) => replace({ ...skip, to }, 'to')}
        >
          → <VariableName name={targetWords(plan.document, skip.to)} />
        </AimButton>
      </div>
      <TakenBy count={count} from={leaves} />
      {open && <OpenSkip {...props} replace={replace} />}
    </div>
  );
}

interface OpenProps extends Props {
  readonly replace: (changed: Skip, field: string) => void;
}

function OpenSkip({ id, skips, skip, index, reads, isProblem, asAskIf, change, replace }: OpenProps) {
  const [picking, setPicking] = useState(false);
  const remove = () =>
    change(
      skips.filter((_, n) => n !== index),
      'skips',
      'Delete a skip',
    );
  return (
    <div className={rows.openSkip}>
      <ConditionField
        field={fieldId(id, 'skip', index)}
        label={`Condition of skip ${index + 1}`}
        value={skip.if ?? ''}
        place={reads}
        isProblem={(snag) => isProblem(snag, index) && snag.field === 'if'}
        placeholder="always"
        change={(text) => {
          const { if: _, ...rest } = skip;
          replace(text.trim() === '' ? rest : { if: text, ...rest }, 'if');
        }}
      />
      {picking && (
        <ConditionPicker
          place={reads}
          value={skip.if ?? ''}
          change={(text) => replace({ ...skip, if: text }, 'if')}
        />
      )}
      <div className={rows.rowActs}>
        <button type="button" aria-expanded={picking} onClick={() => setPicking(!picking)}>
          Pick
        </button>
        <button type="button" onClick={remove}>
          Delete skip
        </button>
        {asAskIf !== undefined && <Rewrite words="Write as ask if" make={() => asAskIf(index)} />}
      </div>
    </div>
  );
}

function wordsOf(plan: Plan, skip: Skip, index: number, count: number): string {
  if (skip.if === undefined) return count > 1 && index === count - 1 ? 'everyone else' : 'everyone';
  const parsed = parseCondition(skip.if);
  return parsed.ok ? `if ${conditionSentence(parsed.tree, plan.variables)}` : `if ${skip.if}`;
}
