import { insulationsOf, type Laying, METHODS } from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { INSULATION_WORDS, METHOD_WORDS } from './ConductorDetail.tsx';

/** How cables are laid in this job, where a cable says nothing else. */
export function LayingForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const profile = design.site.codeProfile;
  const laying = design.wiring?.laying;
  const edit = (label: string, recipe: (one: Laying) => void) =>
    change(`${label} of all cables`, (draft) => {
      draft.wiring ??= {};
      draft.wiring.laying ??= {};
      recipe(draft.wiring.laying);
    });
  const path = ['wiring', 'laying'];
  if (profile === undefined)
    return <p className="text-unknown">Choose the code profile in Site: sizes follow from its tables.</p>;
  return (
    <fieldset className="no-print grid grid-cols-2 gap-x-4 md:grid-cols-4">
      <legend className="text-[13px] text-quiet">All cables, where one says nothing else</legend>
      <SelectField
        label="Insulation"
        path={[...path, 'insulation']}
        value={laying?.insulation}
        options={insulationsOf(profile).map((one) => ({ value: one, label: INSULATION_WORDS[one] }))}
        emptyLabel={profile === 'metric' ? 'PVC, 70 °C, as planned' : '75 °C, as planned'}
        disabled={!canEdit}
        onTake={(value) => edit('Insulation', (one) => put(one, 'insulation', value))}
      />
      {profile === 'metric' ? (
        <SelectField
          label="Laid"
          path={[...path, 'method']}
          value={laying?.method}
          options={METHODS.map((one) => ({ value: one, label: METHOD_WORDS[one] }))}
          emptyLabel="clipped direct, as planned"
          disabled={!canEdit}
          onTake={(value) => edit('Laying', (one) => put(one, 'method', value))}
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
          emptyLabel="75 °C, as planned"
          disabled={!canEdit}
          onTake={(value) => edit('Terminals', (one) => put(one, 'terminalColumn', value))}
        />
      )}
      <NumberField
        label="Hottest air along them"
        path={[...path, 'ambientC']}
        value={laying?.ambientC}
        unit="°C"
        absent="as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Air', (one) => put(one, 'ambientC', value))}
      />
      <NumberField
        label={profile === 'metric' ? 'Circuits bunched' : 'Conductors in a raceway'}
        path={[...path, 'grouped']}
        value={laying?.grouped}
        unit=""
        absent={profile === 'metric' ? 'by itself' : '3'}
        disabled={!canEdit}
        onTake={(value) => edit('Grouping', (one) => put(one, 'grouped', value))}
      />
      <NumberField
        label="Service loop left at each"
        path={[...path, 'serviceLoopM']}
        value={laying?.serviceLoopM}
        unit="m"
        absent="none"
        disabled={!canEdit}
        onTake={(value) => edit('Service loop', (one) => put(one, 'serviceLoopM', value))}
      />
    </fieldset>
  );
}
