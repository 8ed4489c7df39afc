import {
  type BankLimitColumn,
  type BankLimitKey,
  bankLimitTable,
  type CompiledStack,
  describePlaces,
  formatQuantity,
} from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../../state/job.ts';

const ROWS: readonly (readonly [BankLimitKey, string])[] = [
  ['modules', 'Modules, by their hardest-working one'],
  ['inverters', 'Inverters'],
  ['breaker', 'Battery breaker'],
  ['cable', 'Battery leads of the inverters'],
  ['bar', 'Combiner bar'],
  ['management', 'Battery management'],
];

const TITLES = { nominal: 'At nominal voltage', minimum: 'At the lowest voltage', surge: 'Largest start' };

function Cell({ column, name }: { readonly column: BankLimitColumn; readonly name: BankLimitKey }) {
  const { design } = useOpenJob();
  const limit = column.demand.limits.find((one) => one.key === name)?.amperes;
  if (limit === undefined) return <td />;
  if (!limit.known)
    return (
      <td className="px-2 text-unknown" title={`Missing: ${describePlaces(design, limit.missing)}`}>
        not known
      </td>
    );
  if (limit.value === 'none') return <td className="px-2 text-quiet">none</td>;
  const isOver = column.demand.amperes > limit.value;
  const binds = column.binding?.key === name;
  return (
    <td className={`px-2 whitespace-nowrap ${binds ? 'font-semibold' : ''} ${isOver ? 'text-over' : ''}`}>
      {formatQuantity(limit.value, 'A')}
      {binds && ' binds'}
      {isOver && ', over'}
    </td>
  );
}

/** Every limit on the battery current side by side, and which one binds. */
export function BankLimits({ compiled }: { readonly compiled: CompiledStack }) {
  const { design, analysis } = useOpenJob();
  const table = useMemo(
    () => bankLimitTable(analysis.installation, compiled.stack.id),
    [analysis, compiled.stack.id],
  );
  if (table.known && table.value === 'none') return null;
  if (!table.known || table.value === 'none')
    return (
      <p className="mt-2 text-unknown">
        The limits on the battery current are not known yet. Missing:{' '}
        {table.known ? '' : describePlaces(design, table.missing)}.
      </p>
    );
  const columns = table.value;
  return (
    <section
      className="mt-3 relative overflow-x-auto"
      aria-label="Limits on the battery current"
      tabIndex={-1}
    >
      <table className="condensed w-full text-right">
        <thead>
          <tr className="text-quiet">
            <th className="text-left font-semibold text-ink">Limits on the battery current</th>
            {columns.map(({ situation, demand }) => (
              <th key={situation} className="px-2 font-medium">
                {TITLES[situation]}
                {situation !== 'surge' && ` (${formatQuantity(demand.volts, 'V')})`}
                {situation === 'surge' && ` (${demand.label}, ${formatQuantity(demand.durationS ?? 0, 's')})`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="border-t border-edge">
            <th className="py-1 text-left font-semibold">Drawn</th>
            {columns.map(({ situation, demand }) => (
              <td key={situation} className="px-2 font-semibold">
                {formatQuantity(demand.amperes, 'A')}
              </td>
            ))}
          </tr>
          {ROWS.map(([key, label]) => (
            <tr key={key} className="border-t border-rule">
              <th className="py-1 text-left font-normal">{label}</th>
              {columns.map((column) => (
                <Cell key={column.situation} column={column} name={key} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
