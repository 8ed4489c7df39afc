import type { Conductor } from '@bastion/core';
import { type useJob, useOpenJob } from '../../../state/job.ts';
import { NumberField } from '../../../ui/fields.tsx';
import { SizeField } from '../../../ui/SizeField.tsx';
import { withFigure } from './bankEdits.ts';

interface LeadFieldsProps {
  readonly label: string;
  readonly path: readonly string[];
  readonly lead: Conductor | undefined;
  readonly isBar?: boolean;
  /** What a figure that is not given means, where it is not "not known". */
  readonly absent?: string;
  readonly onTake: (lead: Conductor | undefined) => ReturnType<ReturnType<typeof useJob.getState>['change']>;
}

/** Length and size of a conductor. */
export function LeadFields({
  label,
  path,
  lead,
  isBar = false,
  absent = 'not known',
  onTake,
}: LeadFieldsProps) {
  const { canEdit } = useOpenJob();
  return (
    <>
      <NumberField
        label={`${label}, ${isBar ? 'between places' : 'one pole'}`}
        unit="m"
        path={[...path, 'lengthM']}
        value={lead?.lengthM}
        absent={absent}
        disabled={!canEdit}
        onTake={(value) => onTake(withFigure(lead, 'lengthM', value))}
      />
      {isBar ? (
        <NumberField
          label="Cross-section of the bar"
          unit="mm²"
          path={[...path, 'areaMm2']}
          value={lead?.areaMm2}
          disabled={!canEdit}
          onTake={(value) => onTake(withFigure(lead, 'areaMm2', value))}
        />
      ) : (
        <SizeField
          label="Size, flexible copper"
          path={[...path, 'areaMm2']}
          value={lead?.areaMm2}
          absent={absent}
          onTake={(value) => onTake(withFigure(lead, 'areaMm2', value))}
        />
      )}
    </>
  );
}
