import { useId } from 'react';

interface FormChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly onChoose: (value: string) => void;
  /** What stands while nothing is chosen; without it something always is. */
  readonly emptyLabel?: string;
  readonly disabled?: boolean;
}

/** A choice of a form that is sent as a whole. */
export function FormChoice({
  label,
  value,
  options,
  onChoose,
  emptyLabel,
  disabled = false,
}: FormChoiceProps) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <select
        id={id}
        className="input"
        disabled={disabled}
        value={value}
        onChange={({ target }) => onChoose(target.value)}
      >
        {emptyLabel !== undefined && <option value="">{emptyLabel}</option>}
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
