import { useId } from 'react';

interface FormFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onType: (value: string) => void;
  readonly type?: 'text' | 'email' | 'password';
  readonly autoComplete?: string;
  readonly hint?: string;
  readonly isNeeded?: boolean;
  /** In a row of small fields on the desk. */
  readonly isCompact?: boolean;
}

/** A field of a form that is sent as a whole. */
export function FormField({
  label,
  value,
  onType,
  type = 'text',
  autoComplete = 'off',
  hint,
  isNeeded = true,
  isCompact = false,
}: FormFieldProps) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className={isCompact ? 'block text-[13px] text-quiet' : 'block'}>
        {label}
      </label>
      <input
        id={id}
        className="input"
        type={type}
        required={isNeeded}
        autoComplete={autoComplete}
        aria-describedby={hint === undefined ? undefined : `${id}-hint`}
        value={value}
        onChange={(event) => onType(event.target.value)}
      />
      {hint !== undefined && (
        <p id={`${id}-hint`} className="text-[13px] text-quiet">
          {hint}
        </p>
      )}
    </div>
  );
}

/** What is asked of a new password, where it is typed. */
export const PASSWORD_HINT = 'At least 10 characters, and none of those that everybody tries first.';
