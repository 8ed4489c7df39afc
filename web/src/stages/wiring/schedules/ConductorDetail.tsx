import {
  type Cable,
  type CableLine,
  insulationsOf,
  leadSizeWords,
  METHODS,
  sizeLine,
  type SizedLine,
  type SizeAnswer,
  smallestWords,
  TEST_TITLES,
} from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { SizeField } from '../../../ui/SizeField.tsx';
import { StateMark } from '../../../ui/StateMark.tsx';
import { cableIn, setCableFigure } from './cableEdits.ts';

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

function Tests({ answers }: { readonly answers: readonly SizeAnswer[] }) {
  return (
    <ul className="mt-1">
      {answers.map((answer, at) => (
        <li key={at} className="flex gap-2">
          <span className="w-5 shrink-0">
            <StateMark state={answer.state} silent />
          </span>
          <span className="w-32 shrink-0">{TEST_TITLES[answer.test]}</span>
          <span className="text-quiet">{answer.working()}</span>
        </li>
      ))}
    </ul>
  );
}

function Working({
  sized,
  onTake,
}: {
  readonly sized: SizedLine;
  readonly onTake: (areaMm2: number) => void;
}) {
  const { canEdit } = useOpenJob();
  const { chosen, smallest, carried, laidAs } = sized;
  const isSmallest = smallest.kind === 'found' && chosen?.areaMm2 === smallest.areaMm2;
  return (
    <div className="grid gap-3 lg:grid-cols-2">
      <section>
        <h4 className="font-semibold">
          {chosen === undefined ? 'No size chosen' : `Chosen: ${leadSizeWords(chosen.areaMm2)}`}
        </h4>
        <p className="text-quiet">{carried.because}</p>
        {chosen !== undefined && <Tests answers={chosen.answers} />}
      </section>
      <section>
        <h4 className="font-semibold">Smallest that passes: {smallestWords(smallest)}</h4>
        {smallest.kind === 'found' && (
          <>
            {smallest.governs !== undefined && (
              <p className="text-quiet">The next smaller fails by: {TEST_TITLES[smallest.governs]}.</p>
            )}
            <Tests answers={smallest.answers} />
            {canEdit && !isSmallest && (
              <button type="button" className="button mt-1" onClick={() => onTake(smallest.areaMm2)}>
                Take {leadSizeWords(smallest.areaMm2)}
              </button>
            )}
          </>
        )}
        {laidAs.planned.length > 0 && (
          <p className="mt-1 text-quiet">
            Stands as planned, since nobody has said otherwise: {laidAs.planned.join(', ')}.
          </p>
        )}
      </section>
    </div>
  );
}

function CableFields({ line }: { readonly line: CableLine }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const profile = design.site.codeProfile;
  const { cable } = line;
  const path = ['wiring', 'cables', cable?.id ?? line.id];
  const edit = (label: string, recipe: (one: Cable) => void) =>
    change(`${label}: ${line.label}`, (draft) => recipe(cableIn(draft, line.id)));
  return (
    <div className="mt-2 grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-4">
      <SizeField
        label="Size"
        path={line.areaPath}
        value={line.areaMm2.known ? line.areaMm2.value : undefined}
        onTake={(value) =>
          change(`Size: ${line.label}`, (draft) => setCableFigure(draft, line, 'areaMm2', value))
        }
      />
      <NumberField
        label="Length of one conductor"
        path={line.lengthPath}
        value={line.lengthM.known ? line.lengthM.value : undefined}
        unit="m"
        disabled={!canEdit}
        onTake={(value) =>
          change(`Length: ${line.label}`, (draft) => setCableFigure(draft, line, 'lengthM', value))
        }
      />
      {line.use !== 'battery' && (
        <NumberField
          label="Left at its ends"
          path={[...path, 'serviceLoopM']}
          value={cable?.serviceLoopM}
          unit="m"
          absent="as the job"
          disabled={!canEdit}
          onTake={(value) => edit('Service loop', (one) => put(one, 'serviceLoopM', value))}
        />
      )}
      <SelectField
        label="Insulation"
        path={[...path, 'insulation']}
        value={cable?.insulation}
        options={(profile === undefined ? [] : insulationsOf(profile)).map((one) => ({
          value: one,
          label: INSULATION_WORDS[one],
        }))}
        emptyLabel="as the job"
        disabled={!canEdit}
        onTake={(value) => edit('Insulation', (one) => put(one, 'insulation', value))}
      />
      {profile === 'north-american' ? (
        <SelectField
          label="Terminals marked for"
          path={[...path, 'terminalColumn']}
          value={cable?.terminalColumn}
          options={[
            { value: '60C', label: '60 °C' },
            { value: '75C', label: '75 °C' },
          ]}
          emptyLabel="as the job"
          disabled={!canEdit}
          onTake={(value) => edit('Terminals', (one) => put(one, 'terminalColumn', value))}
        />
      ) : (
        <SelectField
          label="Laid"
          path={[...path, 'method']}
          value={cable?.method}
          options={METHODS.map((one) => ({ value: one, label: METHOD_WORDS[one] }))}
          emptyLabel="as the job"
          disabled={!canEdit}
          onTake={(value) => edit('Laid', (one) => put(one, 'method', value))}
        />
      )}
      <NumberField
        label="Hottest air along it"
        path={[...path, 'ambientC']}
        value={cable?.ambientC}
        unit="°C"
        absent="as the job"
        disabled={!canEdit}
        onTake={(value) => edit('Air', (one) => put(one, 'ambientC', value))}
      />
      <NumberField
        label={profile === 'north-american' ? 'Conductors in the raceway' : 'Circuits bunched'}
        path={[...path, 'grouped']}
        value={cable?.grouped}
        unit=""
        absent="as the job"
        disabled={!canEdit}
        onTake={(value) => edit('Grouping', (one) => put(one, 'grouped', value))}
      />
      <NumberField
        label="In parallel on each line"
        path={[...path, 'parallel']}
        value={cable?.parallel}
        unit=""
        absent="1"
        disabled={!canEdit}
        onTake={(value) => edit('Parallel', (one) => put(one, 'parallel', value))}
      />
      <SizeField
        label="Protective conductor"
        path={[...path, 'protectiveMm2']}
        value={cable?.protectiveMm2}
        absent="by table"
        onTake={(value) => edit('Protective conductor', (one) => put(one, 'protectiveMm2', value))}
      />
      <NumberField
        label="Outside, of a sheathed cable"
        path={[...path, 'outsideMm']}
        value={cable?.outsideMm}
        unit="mm"
        disabled={!canEdit}
        onTake={(value) => edit('Outside', (one) => put(one, 'outsideMm', value))}
      />
      <SelectField
        label="Neutral carries"
        path={[...path, 'neutralCounts']}
        value={cable?.neutralCounts}
        options={[
          { value: 'yes', label: 'enough to heat it' },
          { value: 'no', label: 'little' },
        ]}
        emptyLabel="little, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Neutral', (one) => put(one, 'neutralCounts', value))}
      />
      <SelectField
        label="Its load"
        path={[...path, 'passing']}
        value={cable?.passing}
        options={[
          { value: 'yes', label: 'never stays for three hours' },
          { value: 'no', label: 'stays' },
        ]}
        emptyLabel="stays, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Load', (one) => put(one, 'passing', value))}
      />
      <SelectField
        label="Serves"
        path={[...path, 'serves']}
        value={cable?.serves}
        options={[
          { value: 'lighting', label: 'lighting' },
          { value: 'other', label: 'other loads' },
        ]}
        emptyLabel="other loads, as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Serves', (one) => put(one, 'serves', value))}
      />
      <NumberField
        label="May lose"
        path={[...path, 'dropLimit']}
        value={cable?.dropLimit}
        unit="%"
        scale={100}
        absent="as planned"
        disabled={!canEdit}
        onTake={(value) => edit('Drop', (one) => put(one, 'dropLimit', value))}
      />
    </div>
  );
}

/** A cable opened: where its load comes from, every test of the chosen and of the smallest size, and what can be said of it. */
export function ConductorDetail({ line }: { readonly line: CableLine }) {
  const { installation } = useOpenJob().analysis;
  const change = useJob((store) => store.change);
  const sized = sizeLine(installation, line);
  return (
    <div className="sticky left-0 w-[calc(100cqw-3rem)] rounded-sm border border-rule bg-ground p-2 whitespace-normal">
      {sized?.known === true && (
        <Working
          sized={sized.value}
          onTake={(areaMm2) =>
            void change(`Size: ${line.label}`, (draft) => setCableFigure(draft, line, 'areaMm2', areaMm2))
          }
        />
      )}
      <CableFields line={line} />
    </div>
  );
}
