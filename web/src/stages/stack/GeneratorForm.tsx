import {
  describePlaces,
  type Design,
  formatQuantity,
  fuelUse,
  type Generator,
  generatorBoard,
  generatorLines,
  generatorRating,
  loadStages,
  type Problem,
} from '@bastion/core';
import { Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { CONNECTIONS } from './generatorWords.ts';
import { FindingLines } from '../../ui/FindingLines.tsx';
import { typeOptions } from './bank/BankForm.tsx';

const INLETS = [
  { value: 'service-board', label: 'the service board' },
  { value: 'backed-up-board', label: 'the backed-up board' },
] as const;
const BONDS = [
  { value: 'bonded', label: 'bonded to its frame' },
  { value: 'floating', label: 'floating' },
] as const;

/** Fuel for a day of outage at the average load, and how long what is there lasts. */
function FuelWords({ generator }: { readonly generator: Generator }) {
  const { design, analysis } = useOpenJob();
  const { generators, stacks } = analysis.installation;
  const one = generators.find((found) => found.generator.id === generator.id);
  if (one === undefined) return null;
  const use = fuelUse(
    one,
    stacks.find(({ stack }) => stack.id === generator.stackId),
  );
  if (!use.known)
    return (
      <p className="text-[13px] text-unknown">
        Fuel not known. Missing: {describePlaces(design, use.missing)}.
      </p>
    );
  const { litresPerHour, litresPerDay, lastsH } = use.value;
  return (
    <p className="text-[13px]">
      Average load alone: {formatQuantity(litresPerHour, 'L')} an hour,{' '}
      <strong>{formatQuantity(litresPerDay, 'L')} a day</strong>
      {lastsH !== undefined && (
        <>
          ; the fuel at hand lasts <strong>{formatQuantity(lastsH, 'h')}</strong>
        </>
      )}
      .
    </p>
  );
}

/** In which order the load could be brought onto a running set, where one step is too much. */
function StageWords({ generator }: { readonly generator: Generator }) {
  const { analysis } = useOpenJob();
  const { generators, stacks, supply } = analysis.installation;
  const one = generators.find((found) => found.generator.id === generator.id);
  const set = stacks.find(({ stack }) => stack.id === generator.stackId);
  const board = set === undefined ? undefined : generatorBoard(set);
  const rating = one === undefined ? undefined : generatorRating(one);
  if (one?.type.known !== true || rating?.known !== true || board?.known !== true || !supply.known)
    return null;
  const { largestStep } = one.type.value;
  const reached = generatorLines(generator, one.type.value, supply.value);
  if (largestStep === undefined || !reached.known) return null;
  const stages = loadStages(board.value.circuits, supply.value, reached.value, rating.value, largestStep);
  if (stages.length < 2) return null;
  return (
    <details className="text-[13px]">
      <summary>Bring the load on in {stages.length} stages</summary>
      <ol className="list-decimal pl-5">
        {stages.map((stage) => (
          <li key={stage.circuits[0]?.id}>
            {stage.circuits.map((circuit) => circuit.name).join(', ')}: {formatQuantity(stage.watts, 'W')}
            {stage.isTooLarge && <span className="text-over">, more than one step by itself</span>}
          </li>
        ))}
      </ol>
    </details>
  );
}

function OneGenerator({ generator }: { readonly generator: Generator }) {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const changeIt = (label: string, recipe: (target: Generator, draft: Design) => void): readonly Problem[] =>
    change(label, (draft) => {
      const target = draft.generators.find((one) => one.id === generator.id);
      if (target !== undefined) recipe(target, draft);
    });
  const { generators, supply } = analysis.installation;
  const type = generators.find((one) => one.generator.id === generator.id)?.type;
  const lines = supply.known ? supply.value.lines : [];
  const needsLine = type?.known === true && type.value.lines < lines.length;
  return (
    <div className="grid gap-1.5 border-t border-rule pt-2">
      <div className="flex items-center justify-between">
        <h3 className="font-semibold">{generator.name}</h3>
        {canEdit && (
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Remove ${generator.name}`}
            onClick={() =>
              change(
                `Remove ${generator.name}`,
                (draft) =>
                  void (draft.generators = draft.generators.filter((one) => one.id !== generator.id)),
              )
            }
          >
            <Trash2 size={14} aria-hidden="true" />
          </button>
        )}
      </div>
      <SelectField
        label="Generator type"
        path={['generators', generator.id, 'typeId']}
        value={generator.typeId}
        options={typeOptions(design, 'generator')}
        disabled={!canEdit}
        onTake={(value) => changeIt('Generator type', (target) => put(target, 'typeId', value))}
      />
      <SelectField
        label="Connection"
        path={['generators', generator.id, 'connection']}
        value={generator.connection}
        options={CONNECTIONS}
        disabled={!canEdit}
        onTake={(value) => changeIt('Generator connection', (target) => put(target, 'connection', value))}
      />
      {generator.connection === 'transfer-switch' && (
        <SelectField
          label="Transfer switch"
          path={['generators', generator.id, 'transferDeviceTypeId']}
          value={generator.transferDeviceTypeId}
          options={typeOptions(design, 'transfer-device')}
          emptyLabel="the one the stack names"
          disabled={!canEdit}
          onTake={(value) =>
            changeIt('Transfer switch', (target) => put(target, 'transferDeviceTypeId', value))
          }
        />
      )}
      {generator.connection === 'inlet' && (
        <SelectField
          label="Inlet onto"
          path={['generators', generator.id, 'inletAt']}
          value={generator.inletAt}
          options={INLETS}
          disabled={!canEdit}
          onTake={(value) => changeIt('Inlet', (target) => put(target, 'inletAt', value))}
        />
      )}
      <SelectField
        label="Its neutral on site"
        path={['generators', generator.id, 'neutralBond']}
        value={generator.neutralBond}
        options={BONDS}
        emptyLabel="as its type says"
        disabled={!canEdit}
        onTake={(value) =>
          changeIt('Neutral of the generator', (target) => put(target, 'neutralBond', value))
        }
      />
      <SelectField
        label="Feeds"
        path={['generators', generator.id, 'stackId']}
        value={generator.stackId}
        options={design.stacks.map((stack) => ({ value: stack.id, label: stack.name }))}
        disabled={!canEdit}
        onTake={(value) => changeIt('Generator feeds', (target) => put(target, 'stackId', value))}
      />
      {needsLine && (
        <SelectField
          label="Line it supplies"
          path={['generators', generator.id, 'line']}
          value={generator.line}
          options={lines.map((line) => ({ value: line, label: line }))}
          disabled={!canEdit}
          onTake={(value) => changeIt('Line of the generator', (target) => put(target, 'line', value))}
        />
      )}
      <NumberField
        label="Fuel at hand"
        unit="L"
        path={['generators', generator.id, 'fuelL']}
        value={generator.fuelL}
        disabled={!canEdit}
        onTake={(value) => changeIt('Fuel at hand', (target) => put(target, 'fuelL', value))}
      />
      <FuelWords generator={generator} />
      <StageWords generator={generator} />
      <FindingLines
        checks={['generator.window', 'generator.lines', 'generator.pv']}
        about={{ kind: 'generator', id: generator.id }}
        onlyTrouble
      />
    </div>
  );
}

export function GeneratorForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const add = (): void => {
    const stackId = design.stacks[0]?.id;
    change(
      'Add a generator',
      (draft) =>
        void draft.generators.push({
          id: newId('g'),
          name: `Generator ${draft.generators.length + 1}`,
          ...(stackId === undefined ? {} : { stackId }),
        }),
    );
  };
  return (
    <section className="mt-4 grid gap-2">
      {design.generators.map((generator) => (
        <OneGenerator key={generator.id} generator={generator} />
      ))}
      {canEdit && (
        <button type="button" className="button justify-center" onClick={add}>
          Add a generator
        </button>
      )}
    </section>
  );
}
