import {
  type Cable,
  type CableLine,
  leadSizeWords,
  sizeLine,
  type SizedLine,
  type SizeAnswer,
  smallestWords,
  type VanAnswer,
  vanAnswers,
  TEST_TITLES,
} from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { SizeField } from '../../../ui/SizeField.tsx';
import { StateMark } from '../../../ui/StateMark.tsx';
import { cableIn, setCableFigure } from './cableEdits.ts';
import { LayingFields } from './LayingFields.tsx';

/** A cable that says nothing is laid as the job has it. */
const AS_THE_JOB = {
  insulation: 'as the job',
  method: 'as the job',
  terminalColumn: 'as the job',
  ambientC: 'as the job',
  grouped: 'as the job',
  serviceLoopM: 'as the job',
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
  const { chosen, smallest, carried, laidAs, question } = sized;
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
        <h4 className="font-semibold">Smallest that passes: {smallestWords(smallest, question.profile)}</h4>
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

/** What lies in the van for this cable: the third way to choose, beside the smallest and a choice of one's own. */
function InVan({
  answers,
  chosenMm2,
  onTake,
}: {
  readonly answers: readonly VanAnswer[];
  readonly chosenMm2: number | undefined;
  readonly onTake: (areaMm2: number) => void;
}) {
  const { design, canEdit } = useOpenJob();
  const listed = design.wiring?.remnants?.length ?? 0;
  return (
    <section className="mt-3">
      <h4 className="font-semibold">In the van</h4>
      {answers.length === 0 && (
        <p className="text-quiet">
          {listed === 0
            ? 'Nothing is listed: pieces at hand are typed in the cut list.'
            : 'Nothing of its make and cores.'}
        </p>
      )}
      <ul>
        {answers.map(({ remnant: { id, areaMm2, pieces = 1, colour }, state, words }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-2">
            <span className="w-5 shrink-0">
              <StateMark state={state} silent />
            </span>
            <span className="w-32 shrink-0">
              {pieces > 1 && `${pieces} × `}
              {leadSizeWords(areaMm2)}
              {colour !== undefined && `, ${colour}`}
            </span>
            <span className="text-quiet">{words}</span>
            {canEdit && (state === 'within' || state === 'tight') && areaMm2 !== chosenMm2 && (
              <button type="button" className="button" onClick={() => onTake(areaMm2)}>
                Take {leadSizeWords(areaMm2)}
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function CableFields({ line }: { readonly line: CableLine }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
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
      <LayingFields
        laying={cable}
        path={path}
        absent={AS_THE_JOB}
        hasLoop={line.use !== 'battery'}
        onTake={(label, key, value) =>
          change(`${label}: ${line.label}`, (draft) => put(cableIn(draft, line.id), key, value))
        }
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

/**
 * A cable opened: where its load comes from, every test of the chosen and of the smallest size, what the van has for it, and what can be
 * said of it.
 */
export function ConductorDetail({ line }: { readonly line: CableLine }) {
  const { installation } = useOpenJob().analysis;
  const change = useJob((store) => store.change);
  const sized = sizeLine(installation, line);
  const take = (areaMm2: number): void =>
    void change(`Size: ${line.label}`, (draft) => setCableFigure(draft, line, 'areaMm2', areaMm2));
  return (
    <div className="sticky left-0 w-[calc(100cqw-3rem)] rounded-sm border border-rule bg-ground p-2 whitespace-normal">
      {sized?.known === true && (
        <>
          <Working sized={sized.value} onTake={take} />
          <InVan
            answers={vanAnswers(installation, sized.value)}
            chosenMm2={sized.value.chosen?.areaMm2}
            onTake={take}
          />
        </>
      )}
      <CableFields line={line} />
    </div>
  );
}
