import { lengthIn, metresIn, type Path, type Problem } from '@bastion/core';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { useLengthUnit } from '../state/lengthUnit.ts';
import { fieldKey } from './fieldLinks.ts';
import { FirstMark } from './FirstMark.tsx';
import { readNumber } from './readNumber.ts';

/** How long typing rests before it is taken over. Leaving the field or Enter takes it over at once. */
const REST_MS = 350;

interface FieldProps {
  readonly label: string;
  readonly path: Path;
  readonly disabled?: boolean;
  readonly hint?: string;
}

function useTyped(shown: string, take: (text: string) => string | undefined) {
  // What is typed lies over what is kept until it is taken over; what is refused stays, with its sentence.
  const [draft, setDraft] = useState<string>();
  const [error, setError] = useState<string>();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const text = draft ?? shown;
  const commit = (now: string): string | undefined => {
    clearTimeout(timer.current);
    const problem = now === shown ? undefined : take(now);
    setError(problem);
    return problem;
  };
  return {
    text,
    error,
    onChange: (now: string): void => {
      setDraft(now);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => commit(now), REST_MS);
    },
    onBlur: (): void => {
      // What was taken over stands as it is kept: "10 m" in a field of feet does not stay beside its unit.
      if (commit(text) === undefined) setDraft(undefined);
    },
    onKeyDown: (event: KeyboardEvent): void => {
      if (event.key === 'Enter') commit(text);
      if (event.key === 'Escape') {
        clearTimeout(timer.current);
        setDraft(undefined);
        setError(undefined);
      }
    },
  };
}

interface NumberFieldProps extends FieldProps {
  readonly value: number | undefined;
  readonly unit: string;
  /** The shown figure is the value times this: 100 for a fraction shown in percent. */
  readonly scale?: number;
  /** What an empty field means, where it is not "not known". */
  readonly absent?: string;
  readonly onTake: (value: number | undefined) => readonly Problem[];
}

const tidy = (value: number): string => String(Number(value.toPrecision(12)));

/** A figure with its unit. Empty means not known. Text that is no number stays, with a sentence. */
export function NumberField({
  label,
  path,
  value,
  unit,
  scale = 1,
  onTake,
  disabled = false,
  hint,
  absent = 'not known',
}: NumberFieldProps) {
  const id = useId();
  const region = useLengthUnit();
  const isLength = unit === 'm';
  const shown = value === undefined ? '' : isLength ? String(lengthIn(value, region)) : tidy(value * scale);
  const typed = useTyped(shown, (text) => {
    if (text.trim() === '') return onTake(undefined)[0]?.message;
    // A length may name its unit, whatever is usual here.
    const read = isLength ? metresIn(text, region) : readNumber(text);
    if (read === undefined)
      return `"${text.slice(0, 20)}" is not ${isLength ? 'a length, as 12 m or 40 ft' : 'a number'}`;
    return onTake(Number((read / scale).toPrecision(12)))[0]?.message;
  });
  return (
    <div>
      <FieldLabel id={id} label={label} path={path} />
      <div className="flex items-center gap-1.5">
        <input
          id={id}
          data-field={fieldKey(path)}
          className="input text-right"
          inputMode="decimal"
          autoComplete="off"
          placeholder={absent}
          disabled={disabled}
          value={typed.text}
          aria-invalid={typed.error !== undefined}
          aria-describedby={`${id}-note`}
          onChange={(event) => typed.onChange(event.target.value)}
          onBlur={typed.onBlur}
          onKeyDown={typed.onKeyDown}
        />
        <span className="w-9 shrink-0 text-quiet">{isLength ? region : unit}</span>
      </div>
      <FieldNote id={`${id}-note`} error={typed.error} hint={hint} />
    </div>
  );
}

function FieldLabel({
  id,
  label,
  path,
}: {
  readonly id: string;
  readonly label: string;
  readonly path: Path;
}) {
  return (
    <div className="flex items-baseline gap-2">
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <FirstMark label={label} fieldKey={fieldKey(path)} />
    </div>
  );
}

function FieldNote({
  id,
  error,
  hint,
}: {
  readonly id: string;
  readonly error: string | undefined;
  readonly hint: string | undefined;
}) {
  return (
    <p id={id} className={`text-[12px] ${error === undefined ? 'text-quiet' : 'font-semibold text-over'}`}>
      {error === undefined ? hint : `Not taken over: ${error}`}
    </p>
  );
}

interface TextFieldProps extends FieldProps {
  readonly value: string;
  readonly placeholder?: string;
  /** Id of a list of usual entries. */
  readonly list?: string;
  readonly onTake: (value: string) => readonly Problem[];
}

export function TextField({
  label,
  path,
  value,
  onTake,
  disabled = false,
  hint,
  placeholder,
  list,
}: TextFieldProps) {
  const id = useId();
  const typed = useTyped(value, (text) => onTake(text.trim())[0]?.message);
  return (
    <div>
      <FieldLabel id={id} label={label} path={path} />
      <input
        id={id}
        data-field={fieldKey(path)}
        className="input"
        autoComplete="off"
        placeholder={placeholder}
        list={list}
        disabled={disabled}
        value={typed.text}
        aria-invalid={typed.error !== undefined}
        aria-describedby={`${id}-note`}
        onChange={(event) => typed.onChange(event.target.value)}
        onBlur={typed.onBlur}
        onKeyDown={typed.onKeyDown}
      />
      <FieldNote id={`${id}-note`} error={typed.error} hint={hint} />
    </div>
  );
}

interface SelectFieldProps<T extends string> extends FieldProps {
  readonly value: T | undefined;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly onTake: (value: T | undefined) => void;
  /** What the empty choice means, where it is not "not known". */
  readonly emptyLabel?: string;
}

/** A choice from a short list; its first entry is "not known". */
export function SelectField<T extends string>({
  label,
  path,
  value,
  options,
  onTake,
  disabled = false,
  hint,
  emptyLabel = 'not known',
}: SelectFieldProps<T>) {
  const id = useId();
  return (
    <div>
      <FieldLabel id={id} label={label} path={path} />
      <select
        id={id}
        data-field={fieldKey(path)}
        className="input"
        title={options.find((option) => option.value === value)?.label}
        disabled={disabled}
        value={value ?? ''}
        onChange={(event) => onTake(options.find((option) => option.value === event.target.value)?.value)}
      >
        <option value="">{emptyLabel}</option>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
      {hint !== undefined && <p className="text-[12px] text-quiet">{hint}</p>}
    </div>
  );
}
