import type { Design } from '@bastion/core';
import { Upload } from 'lucide-react';
import { useRef } from 'react';
import { readDocumentFile } from '../state/documentFile.ts';

interface DocumentFileButtonProps {
  readonly label: string;
  /** What a screen reader calls the hidden chooser. */
  readonly chooserLabel: string;
  readonly className?: string;
  readonly disabled?: boolean;
  readonly onDesign: (design: Design, fileName: string) => void;
  readonly onFail: (message: string) => void;
}

/** Lets a person choose a design file; hands over the design, or the sentence of why it is none. */
export function DocumentFileButton({
  label,
  chooserLabel,
  className = '',
  disabled = false,
  onDesign,
  onFail,
}: DocumentFileButtonProps) {
  const chooser = useRef<HTMLInputElement>(null);
  const take = async (file: File | undefined): Promise<void> => {
    if (file === undefined) return;
    const read = await readDocumentFile(file);
    if (read.ok) onDesign(read.design, file.name);
    else onFail(read.message);
  };
  return (
    <>
      <button
        type="button"
        className={`button ${className}`}
        disabled={disabled}
        onClick={() => chooser.current?.click()}
      >
        <Upload size={15} aria-hidden="true" /> {label}
      </button>
      <input
        ref={chooser}
        type="file"
        accept=".json,application/json"
        className="sr-only"
        tabIndex={-1}
        aria-label={chooserLabel}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}
