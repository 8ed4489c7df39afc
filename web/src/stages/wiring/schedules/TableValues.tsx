import { insulationsOf, METHODS, readLeadSize, tableValueLabel, tableValueSchema } from '@bastion/core';
import { type SyntheticEvent, useState } from 'react';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { useSession } from '../../../state/session.ts';
import { FormChoice } from '../../../ui/FormChoice.tsx';
import { FormField } from '../../../ui/FormField.tsx';
import { readNumber } from '../../../ui/readNumber.ts';
import { INSULATION_WORDS, METHOD_WORDS } from './LayingFields.tsx';

const TABLES = {
  ampacity: 'What a size carries, A',
  ambient: 'Factor of the air around it',
  grouping: 'Factor of its neighbours',
} as const;
type Table = keyof typeof TABLES;
const isTable = (value: string): value is Table => value in TABLES;

/** What stands in the fields of the form, as typed. */
interface Fields {
  readonly table: Table;
  readonly insulation: string;
  readonly method: string;
  readonly loaded: string;
  readonly at: string;
  readonly value: string;
  readonly reason: string;
}

/** The fields as the design keeps them; the sentence says what is wrong. */
function valueOf(fields: Fields, isMetric: boolean, by: string) {
  const { table, insulation, method, loaded, at, value, reason } = fields;
  const areaMm2 = table === 'ampacity' ? readLeadSize(at, isMetric ? 'metric' : 'north-american') : undefined;
  const read = tableValueSchema.safeParse({
    id: newId('v'),
    table,
    value: readNumber(value),
    reason: reason.trim(),
    by,
    at: new Date().toISOString(),
    ...(table === 'grouping' ? {} : { insulation }),
    ...(table === 'ampacity' ? { areaMm2 } : { upTo: readNumber(at) }),
    ...(table === 'ampacity' && isMetric ? { method, loadedConductors: Number(loaded) } : {}),
  });
  if (read.success) return read.data;
  const field = String(read.error.issues[0]?.path[0] ?? '');
  const words: Readonly<Record<string, string>> = {
    value: `"${value}" is no value for this table.`,
    areaMm2: `"${at}" is no size.`,
    upTo: `"${at}" is no step of this table.`,
    reason: 'A reason of a few words is needed.',
  };
  return words[field] ?? `${field} is not as the table wants it.`;
}

function Form({ isMetric, by }: { readonly isMetric: boolean; readonly by: string }) {
  const change = useJob((store) => store.change);
  const insulations = insulationsOf(isMetric ? 'metric' : 'north-american');
  const [fields, setFields] = useState<Fields>({
    table: 'ampacity',
    insulation: insulations[0] ?? '',
    method: 'C',
    loaded: '2',
    at: '',
    value: '',
    reason: '',
  });
  const [failure, setFailure] = useState('');
  const take = (some: Partial<Fields>): void => setFields({ ...fields, ...some });
  const { table } = fields;
  const add = (event: SyntheticEvent): void => {
    event.preventDefault();
    const one = valueOf(fields, isMetric, by);
    if (typeof one === 'string') {
      setFailure(one);
      return;
    }
    const label = tableValueLabel(one);
    const problems = change(`Override: ${label}`, (draft) => {
      const others = (draft.tableValues ?? []).filter((other) => tableValueLabel(other) !== label);
      draft.tableValues = [...others, one];
    });
    setFailure(problems[0]?.message ?? '');
    if (problems.length === 0) take({ at: '', value: '', reason: '' });
  };
  return (
    <form className="grid grid-cols-2 items-end gap-x-4 gap-y-1 md:grid-cols-4" onSubmit={add}>
      <FormChoice
        label="Table"
        value={table}
        options={Object.entries(TABLES).map(([one, label]) => ({ value: one, label }))}
        onChoose={(value) => isTable(value) && take({ table: value })}
      />
      {table !== 'grouping' && (
        <FormChoice
          label="Insulation"
          value={fields.insulation}
          options={insulations.map((one) => ({ value: one, label: INSULATION_WORDS[one] }))}
          onChoose={(insulation) => take({ insulation })}
        />
      )}
      {table === 'ampacity' && isMetric && (
        <>
          <FormChoice
            label="Laid"
            value={fields.method}
            options={METHODS.map((one) => ({ value: one, label: METHOD_WORDS[one] }))}
            onChoose={(method) => take({ method })}
          />
          <FormChoice
            label="Loaded conductors"
            value={fields.loaded}
            options={['2', '3'].map((one) => ({ value: one, label: one }))}
            onChoose={(loaded) => take({ loaded })}
          />
        </>
      )}
      <FormField
        isCompact
        isNeeded={false}
        label={
          table === 'ampacity'
            ? 'Size'
            : table === 'ambient'
              ? 'Air up to, °C'
              : isMetric
                ? 'Circuits up to'
                : 'Conductors up to'
        }
        value={fields.at}
        onType={(at) => take({ at })}
      />
      <FormField
        isCompact
        isNeeded={false}
        label={table === 'ampacity' ? 'It carries, A' : 'Factor'}
        value={fields.value}
        onType={(value) => take({ value })}
      />
      <FormField
        isCompact
        isNeeded={false}
        label="Reason"
        value={fields.reason}
        onType={(reason) => take({ reason })}
      />
      <button type="submit" className="button h-auto! py-1 whitespace-normal">
        Override the table, as {by}
      </button>
      <p role="alert" className="col-span-full font-semibold text-over empty:hidden">
        {failure}
      </p>
    </form>
  );
}

/** Values of code tables that a licensed person has overridden for this job, by name; the approver puts them in and takes them back. */
export function TableValues() {
  const { design, canAccept } = useOpenJob();
  const change = useJob((store) => store.change);
  const session = useSession((store) => store.session);
  const { codeProfile } = design.site;
  const values = design.tableValues ?? [];
  if (codeProfile === undefined || (values.length === 0 && !canAccept)) return null;
  return (
    <details className="no-print" open={values.length > 0}>
      <summary className="font-semibold">
        Code tables{values.length > 0 && <span className="text-tight"> ({values.length} overridden)</span>}
      </summary>
      <p className="text-[13px] text-quiet">
        An override stands in the working, in the schedules and on paper, with the name of whoever put it
        there.
      </p>
      <ul>
        {values.map((one) => (
          <li key={one.id} className="flex flex-wrap items-baseline gap-2 border-t border-rule py-1">
            <span className="flex-1">
              {tableValueLabel(one)}: <strong>{one.value}</strong>. By {one.by}: {one.reason}
            </span>
            {canAccept && (
              <button
                type="button"
                className="button"
                aria-label={`Back to the table: ${tableValueLabel(one)}`}
                onClick={() =>
                  void change(`Back to the table: ${tableValueLabel(one)}`, (draft) => {
                    draft.tableValues = (draft.tableValues ?? []).filter(({ id }) => id !== one.id);
                  })
                }
              >
                Back to the table
              </button>
            )}
          </li>
        ))}
      </ul>
      {canAccept && session.kind === 'in' && (
        <Form isMetric={codeProfile === 'metric'} by={session.user.name} />
      )}
    </details>
  );
}
