import type { Problem } from '@bastion/core';
import { useId, useState } from 'react';
import { readNumber } from '../../ui/readNumber.ts';

/** A figure in a row: empty is not known, and what is no number stays with its sentence. */
export function FigureCell({
  label,
  field,
  value,
  disabled,
  onTake,
  read: readText = readNumber,
  show = String,
}: {
  readonly label: string;
  readonly field: string;
  readonly value: number | undefined;
  readonly disabled: boolean;
  readonly onTake: (value: number | undefined) => readonly Problem[];
  readonly read?: (text: string) => number | undefined;
  readonly show?: (value: number) => string;
}) {
  const [error, setError] = useState<string>();
  const noteId = useId();
  const shown = value === undefined ? '' : show(value);
  return (
    <>
      <input
        key={value ?? 'none'}
        className="input w-20 text-right"
        aria-label={label}
        aria-invalid={error !== undefined}
        aria-describedby={noteId}
        data-field={field}
        disabled={disabled}
        inputMode="decimal"
        placeholder="not known"
        defaultValue={shown}
        onBlur={({ target }) => {
          const text = target.value.trim();
          // What nobody touched is no edit: a figure as it is shown may be rounded.
          if (text === shown) {
            setError(undefined);
            return;
          }
          const read = text === '' ? undefined : readText(text);
          if (text !== '' && read === undefined) setError(`"${text.slice(0, 20)}" is not a number`);
          else setError(read === value ? undefined : onTake(read)[0]?.message);
        }}
      />
      <span id={noteId} role="alert" className="block text-[13px] text-over">
        {error}
      </span>
    </>
  );
}
