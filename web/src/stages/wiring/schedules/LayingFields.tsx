import { insulationsOf, type Laying, METHODS, type Path, type Problem } from '@bastion/core';
import { useOpenJob } from '../../../state/job.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';

export const INSULATION_WORDS = {
  PVC70: 'PVC, 70 °C',
  XLPE90: 'XLPE, 90 °C',
  '60C': '60 °C',
  '75C': '75 °C',
  '90C': '90 °C',
} as const;

export const METHOD_WORDS = {
  A1: 'A1: single cores in an insulating wall',
  A2: 'A2: a cable in an insulating wall',
  B1: 'B1: single cores in conduit',
  B2: 'B2: a cable in conduit',
  C: 'C: clipped direct',
} as const;

export type TakeLaying = <K extends keyof Laying>(
  label: string,
  key: K,
  value: Laying[K] | undefined,
) => readonly Problem[];

interface LayingFieldsProps {
  readonly laying: Laying | undefined;
  readonly path: Path;
  /** What stands where nothing is said, field by field. */
  readonly absent: Readonly<Record<keyof Laying, string>>;
  /** A lead that is made to its length leaves nothing at its ends. */
  readonly hasLoop?: boolean;
  readonly onTake: TakeLaying;
}

/** How cables are laid, as the code profile of the job asks it: of one, or of all that say nothing else. */
export function LayingFields({ laying, path, absent, hasLoop = true, onTake }: LayingFieldsProps) {
  const { design, canEdit } = useOpenJob();
  const profile = design.site.codeProfile;
  const isMetric = profile !== 'north-american';
  const figure = (key: 'ambientC' | 'grouped' | 'serviceLoopM', label: string, unit: string) => (
    <NumberField
      label={label}
      path={[...path, key]}
      value={laying?.[key]}
      unit={unit}
      absent={absent[key]}
      disabled={!canEdit}
      onTake={(value) => onTake(label, key, value)}
    />
  );
  return (
    <>
      <SelectField
        label="Insulation"
        path={[...path, 'insulation']}
        value={laying?.insulation}
        options={(profile === undefined ? [] : insulationsOf(profile)).map((one) => ({
          value: one,
          label: INSULATION_WORDS[one],
        }))}
        emptyLabel={absent.insulation}
        disabled={!canEdit}
        onTake={(value) => onTake('Insulation', 'insulation', value)}
      />
      {isMetric ? (
        <SelectField
          label="Laid"
          path={[...path, 'method']}
          value={laying?.method}
          options={METHODS.map((one) => ({ value: one, label: METHOD_WORDS[one] }))}
          emptyLabel={absent.method}
          disabled={!canEdit}
          onTake={(value) => onTake('Laid', 'method', value)}
        />
      ) : (
        <SelectField
          label="Terminals marked for"
          path={[...path, 'terminalColumn']}
          value={laying?.terminalColumn}
          options={[
            { value: '60C', label: '60 °C' },
            { value: '75C', label: '75 °C' },
          ]}
          emptyLabel={absent.terminalColumn}
          disabled={!canEdit}
          onTake={(value) => onTake('Terminals', 'terminalColumn', value)}
        />
      )}
      {figure('ambientC', 'Hottest air along', '°C')}
      {figure('grouped', isMetric ? 'Circuits bunched' : 'Conductors in the raceway', '')}
      {hasLoop && figure('serviceLoopM', 'Left at the ends', 'm')}
    </>
  );
}
