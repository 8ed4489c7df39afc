import { leadSizes, leadSizeWords, type Path, type Problem, readLeadSize } from '@bastion/core';
import { useId } from 'react';
import { useOpenJob } from '../state/job.ts';
import { TextField } from './fields.tsx';

interface SizeFieldProps {
  readonly label: string;
  readonly path: Path;
  readonly value: number | undefined;
  /** What an empty field means, where it is not "not known". */
  readonly absent?: string;
  readonly onTake: (areaMm2: number | undefined) => readonly Problem[];
}

/** Cross-section of a conductor, as one writes it: "50", "4/0", "6 AWG", "250 kcmil". Usual sizes are offered, any other is taken. */
export function SizeField({ label, path, value, absent = 'not known', onTake }: SizeFieldProps) {
  const { design, canEdit } = useOpenJob();
  const id = useId();
  return (
    <>
      <TextField
        label={label}
        path={path}
        value={value === undefined ? '' : leadSizeWords(value)}
        disabled={!canEdit}
        placeholder={absent}
        list={id}
        onTake={(text) => {
          if (text === '') return onTake(undefined);
          const area = readLeadSize(text, design.site.codeProfile);
          return area === undefined
            ? [{ path, message: `"${text.slice(0, 20)}" is no size: write 50, 4/0, 6 AWG or 250 kcmil` }]
            : onTake(area);
        }}
      />
      <datalist id={id}>
        {leadSizes(design.site.codeProfile).map((area) => (
          <option key={area} value={leadSizeWords(area)} />
        ))}
      </datalist>
    </>
  );
}
