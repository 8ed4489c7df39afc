import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { LayingFields } from './LayingFields.tsx';

const PLANNED = {
  metric: {
    insulation: 'PVC, 70 °C, as planned',
    method: 'clipped direct, as planned',
    grouped: 'by itself',
  },
  'north-american': { insulation: '75 °C, as planned', method: '', grouped: '3' },
} as const;

/** How cables are laid in this job, where a cable says nothing else. */
export function LayingForm() {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const profile = design.site.codeProfile;
  if (profile === undefined)
    return <p className="text-unknown">Choose the code profile in Site: sizes follow from its tables.</p>;
  return (
    <fieldset className="no-print grid grid-cols-2 gap-x-4 md:grid-cols-4">
      <legend className="text-[13px] text-quiet">All cables, where one says nothing else</legend>
      <LayingFields
        laying={design.wiring?.laying}
        path={['wiring', 'laying']}
        absent={{
          ...PLANNED[profile],
          terminalColumn: '75 °C, as planned',
          ambientC: 'as planned',
          serviceLoopM: 'none',
        }}
        onTake={(label, key, value) =>
          change(`${label} of all cables`, (draft) => {
            draft.wiring ??= {};
            draft.wiring.laying ??= {};
            put(draft.wiring.laying, key, value);
          })
        }
      />
    </fieldset>
  );
}
