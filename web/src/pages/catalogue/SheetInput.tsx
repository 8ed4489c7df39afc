import type { SheetField } from '@bastion/core';
import { useId } from 'react';
import { optionWords } from './words.ts';

interface SheetInputProps {
  readonly field: SheetField;
  readonly value: string;
  /** What stands there on a sample of the same kind. */
  readonly example: string;
  readonly onChange: (value: string) => void;
  /** Why it cannot be kept as it is. */
  readonly problem: string | undefined;
  /** What is unusual about it; it can be kept once somebody has looked again. */
  readonly question: string | undefined;
  readonly isSure: boolean;
  readonly onSure: (isSure: boolean) => void;
}

function Choices({ field, value, onChange }: Pick<SheetInputProps, 'field' | 'value' | 'onChange'>) {
  const chosen = value.split(',').map((one) => one.trim());
  return (
    <fieldset className="col-span-full">
      <legend className="text-[13px] text-quiet">{field.label}</legend>
      <div className="flex flex-wrap gap-x-4">
        {field.options?.map((option) => (
          <label key={option} className="flex items-center gap-1 whitespace-nowrap">
            <input
              type="checkbox"
              checked={chosen.includes(option)}
              onChange={(event) =>
                onChange(
                  (field.options ?? [])
                    .filter((one) => (one === option ? event.target.checked : chosen.includes(one)))
                    .join(', '),
                )
              }
            />
            {optionWords(option)}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Control({
  field,
  value,
  onChange,
  id,
  describedBy,
  isWrong,
  example,
}: Pick<SheetInputProps, 'field' | 'value' | 'onChange' | 'example'> & {
  readonly id: string;
  readonly describedBy: string | undefined;
  readonly isWrong: boolean;
}) {
  const shared = {
    id,
    value,
    'data-field': `type/${field.key}`,
    'aria-invalid': isWrong,
    'aria-describedby': describedBy,
    'aria-required': field.isNeeded === true,
  };
  const placeholder = example === '' ? undefined : `such as ${example}`;
  if (field.holds === 'choice')
    return (
      <select className="input" {...shared} onChange={(event) => onChange(event.target.value)}>
        <option value="">not stated</option>
        {field.options?.map((option) => (
          <option key={option} value={option}>
            {optionWords(option)}
          </option>
        ))}
      </select>
    );
  if (field.holds === 'rows')
    return (
      <textarea
        className="input h-auto! py-1 font-mono text-[13px]"
        rows={Math.min(8, Math.max(2, value.split('\n').length))}
        placeholder={placeholder}
        {...shared}
        onChange={(event) => onChange(event.target.value)}
      />
    );
  return (
    <input
      className={`input ${field.holds === 'figure' || field.holds === 'figure-or-none' ? 'text-right' : ''}`}
      inputMode={field.holds === 'figure' ? 'decimal' : 'text'}
      placeholder={placeholder}
      {...shared}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

/** One figure of the data sheet with its unit, what is wrong with it, and what is unusual about it. */
export function SheetInput(props: SheetInputProps) {
  const { field, problem, question, isSure, onSure } = props;
  const id = useId();
  const told = problem ?? question;
  const isWide = field.holds === 'rows' || field.holds === 'text' || field.holds === 'names';
  return (
    <div className={isWide || field.holds === 'choices' ? 'col-span-full' : ''}>
      {field.holds === 'choices' ? (
        <Choices {...props} />
      ) : (
        <>
          <label htmlFor={id} className="block text-[13px] text-quiet">
            {field.label}
            {field.isNeeded === true && <span aria-hidden="true"> *</span>}
          </label>
          <div className="flex items-center gap-1">
            <Control
              {...props}
              id={id}
              describedBy={told === undefined ? undefined : `${id}-told`}
              isWrong={problem !== undefined}
            />
            {field.unit !== undefined && field.unit !== '' && (
              <span className="w-12 text-quiet">{field.unit}</span>
            )}
          </div>
        </>
      )}
      {told !== undefined && (
        <div id={`${id}-told`} role="alert" className={problem === undefined ? 'text-tight' : 'text-over'}>
          {problem === undefined
            ? `Look again: ${question ?? ''}.`
            : problem.startsWith(field.label) || problem.startsWith('“')
              ? problem
              : `${field.label.split(',')[0] ?? ''} ${problem}`}
          {problem === undefined && (
            <label className="flex items-center gap-1 text-ink">
              <input type="checkbox" checked={isSure} onChange={(event) => onSure(event.target.checked)} />
              It is so on the data sheet
            </label>
          )}
        </div>
      )}
    </div>
  );
}
