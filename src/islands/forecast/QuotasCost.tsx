/** How many of a base quotas turn away, once they are full. */
import { useState } from 'react';
import type { Group } from '../../core/analysis';
import type { QuotaTold } from '../../core/forecast/forecast';
import { groupKey } from '../../core/forecast/groups';
import { useStudy } from '../state/store';
import primitives from '../ui/primitives.module.css';
import { countOf } from './figures';
import type { Forecasting } from './use-forecast';
import { useSettled } from './use-settled';

interface Props {
  readonly group: Group;
  readonly forecasting: Forecasting;
}

export function QuotasCost({ group, forecasting }: Props) {
  const hasQuotas = useStudy((state) => (state.document.quotas ?? []).length > 0);
  const [told, setTold] = useState<readonly QuotaTold[]>([]);
  const key = groupKey(group);
  useSettled(
    forecasting,
    () => (hasQuotas ? forecasting.client.more.quotas(group).catch(() => []) : null),
    [key, hasQuotas],
    setTold,
  );
  const costing = told.filter(({ groupLost }) => (groupLost ?? 0) >= 0.5);
  if (!hasQuotas || costing.length === 0) return null;
  return (
    <>
      <h2>What quotas take of it</h2>
      <div className={primitives.card}>
        {costing.map(({ id, groupLost }) => (
          <p key={id}>
            <code>{id}</code> <b>−{countOf(groupLost ?? 0)}</b> once it is full
          </p>
        ))}
      </div>
    </>
  );
}
