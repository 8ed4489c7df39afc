import type { ReactNode } from 'react';
import { useRef } from 'react';

interface FilePickerProps {
  readonly label: string;
  readonly accept: string;
  readonly children: ReactNode;
  readonly className?: string;
  readonly disabled?: boolean;
  /** Opens the camera where there is one. */
  readonly camera?: boolean;
  readonly onFile: (file: File) => void;
}

/** A button that asks for one file. The chooser itself is hidden and named for those who cannot see. */
export function FilePicker({
  label,
  accept,
  children,
  className = '',
  disabled = false,
  camera = false,
  onFile,
}: FilePickerProps) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        className={`button ${className}`}
        disabled={disabled}
        onClick={() => chooser.current?.click()}
      >
        {children}
      </button>
      <input
        ref={chooser}
        type="file"
        accept={accept}
        className="sr-only"
        tabIndex={-1}
        aria-label={label}
        {...(camera ? { capture: 'environment' as const } : {})}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file !== undefined) onFile(file);
          event.target.value = '';
        }}
      />
    </>
  );
}
