import {
  type CheckId,
  type Design,
  formatQuantity,
  type Problem,
  type PvArray,
  stringVolts,
} from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';
import { typeOptions } from './bank/BankForm.tsx';

const CHECKS: readonly CheckId[] = [
  'pv.string-voltage',
  'pv.string-window',
  'pv.string-current',
  'pv.inputs',
  'pv.rapid-shutdown',
];
const COUPLINGS = [
  { value: 'dc', label: 'DC: strings on inverter inputs' },
  { value: 'ac', label: 'AC: by an inverter of its own' },
] as const;
const SHUTDOWN = [
  { value: 'fitted', label: 'fitted' },
  { value: 'none', label: 'none' },
] as const;
const CURTAILED = [
  { value: 'frequency', label: 'by a shift of frequency' },
  { value: 'shedding', label: 'by shedding it' },
  { value: 'none', label: 'by nothing' },
] as const;
const WITH_GENERATOR = [
  { value: 'disconnected', label: 'disconnected' },
  { value: 'proven-curtailed', label: 'curtailed, proven by test' },
  { value: 'stays', label: 'left on' },
] as const;

type ChangeArray = (label: string, recipe: (array: PvArray) => void) => readonly Problem[];

interface PartProps {
  readonly array: PvArray;
  readonly changeIt: ChangeArray;
}

/** The voltages of a string over the temperatures of the site. */
function StringWords({ array }: { readonly array: PvArray }) {
  const { analysis } = useOpenJob();
  const found = analysis.installation.arrays.find((one) => one.array.id === array.id)?.moduleType;
  const { lowestC, highestC } = analysis.installation.site;
  if (found?.known !== true || array.modulesPerString === undefined) return null;
  if (lowestC === undefined || highestC === undefined) return null;
  const volts = stringVolts(found.value, array.modulesPerString, lowestC, highestC);
  return (
    <p className="text-[13px]">
      One string: <strong>{formatQuantity(volts.coldOpenV, 'V')}</strong> open circuit at {lowestC} °C;
      working {formatQuantity(volts.hotWorkV, 'V')} with cells at {volts.hotCellC} °C,{' '}
      {formatQuantity(volts.coldWorkV, 'V')} at {lowestC} °C. DC stays live in daylight: measure polarity and
      voltage of each string before it is plugged.
    </p>
  );
}

function Places({ array, changeIt }: PartProps) {
  const { design, canEdit } = useOpenJob();
  const path = ['arrays', array.id, 'places'];
  const choices = design.stacks.flatMap((stack) =>
    stack.units.map((unit, index) => ({
      value: `${stack.id}/${unit.id}`,
      label: `${design.stacks.length > 1 ? `${stack.name}, ` : ''}unit ${index + 1}`,
    })),
  );
  return (
    <div data-field={path.join('/')} tabIndex={-1} className="col-span-full">
      {(array.places ?? []).map((place) => {
        const change = (label: string, recipe: (target: NonNullable<PvArray['places']>[number]) => void) =>
          changeIt(label, (target) => {
            const found = target.places?.find((one) => one.id === place.id);
            if (found !== undefined) recipe(found);
          });
        return (
          <div key={place.id} className="grid grid-cols-[1fr_5rem_5rem_auto] items-end gap-2">
            <SelectField
              label="Plugged into"
              path={[...path, place.id, 'unitId']}
              value={`${place.stackId}/${place.unitId}`}
              options={choices}
              disabled={!canEdit}
              onTake={(value) =>
                void change('Inverter of the strings', (target) => {
                  const [stackId, unitId] = (value ?? '').split('/');
                  if (stackId === undefined || unitId === undefined) return;
                  target.stackId = stackId;
                  target.unitId = unitId;
                })
              }
            />
            <NumberField
              label="Input"
              unit=""
              path={[...path, place.id, 'input']}
              value={place.input}
              disabled={!canEdit}
              onTake={(value) =>
                value === undefined
                  ? [{ path, message: 'an input has a number' }]
                  : change('Input', (target) => (target.input = value))
              }
            />
            <NumberField
              label="Strings"
              unit=""
              path={[...path, place.id, 'strings']}
              value={place.strings}
              disabled={!canEdit}
              onTake={(value) =>
                value === undefined
                  ? [{ path, message: 'say how many strings' }]
                  : change('Strings', (target) => (target.strings = value))
              }
            />
            {canEdit && (
              <button
                type="button"
                className="button button-quiet"
                aria-label="Unplug these strings"
                onClick={() =>
                  changeIt('Unplug strings', (target) => {
                    target.places = target.places?.filter((one) => one.id !== place.id) ?? [];
                  })
                }
              >
                <Trash2 size={14} aria-hidden="true" />
              </button>
            )}
          </div>
        );
      })}
      {canEdit && choices.length > 0 && (
        <button
          type="button"
          className="button mt-1"
          onClick={() => {
            const stack = design.stacks[0];
            const unit = stack?.units[0];
            if (stack === undefined || unit === undefined) return;
            changeIt('Plug strings in', (target) => {
              target.places = [
                ...(target.places ?? []),
                { id: newId('p'), stackId: stack.id, unitId: unit.id, input: 1, strings: 1 },
              ];
            });
          }}
        >
          <Plus size={14} aria-hidden="true" /> Plug strings into an input
        </button>
      )}
    </div>
  );
}

function DcFields({ array, changeIt }: PartProps) {
  const { design, canEdit } = useOpenJob();
  const path = ['arrays', array.id];
  const number = (key: 'modulesPerString' | 'directionDeg' | 'tiltDeg', label: string, unit: string) => (
    <NumberField
      label={label}
      unit={unit}
      path={[...path, key]}
      value={array[key]}
      disabled={!canEdit}
      onTake={(value) => changeIt(label, (target) => put(target, key, value))}
    />
  );
  return (
    <>
      <SelectField
        label="PV module type"
        path={[...path, 'moduleTypeId']}
        value={array.moduleTypeId}
        options={typeOptions(design, 'pv-module')}
        disabled={!canEdit}
        onTake={(value) => void changeIt('PV module type', (target) => put(target, 'moduleTypeId', value))}
      />
      {number('modulesPerString', 'Modules in a string', '')}
      {number('directionDeg', 'Direction, from north', '°')}
      {number('tiltDeg', 'Tilt', '°')}
      <SelectField
        label="Rapid shutdown"
        path={[...path, 'rapidShutdown']}
        value={array.rapidShutdown}
        options={SHUTDOWN}
        disabled={!canEdit}
        onTake={(value) => void changeIt('Rapid shutdown', (target) => put(target, 'rapidShutdown', value))}
      />
      <Places array={array} changeIt={changeIt} />
      <div className="col-span-full">
        <StringWords array={array} />
      </div>
    </>
  );
}

function AcFields({ array, changeIt }: PartProps) {
  const { design, canEdit } = useOpenJob();
  const path = ['arrays', array.id];
  return (
    <>
      <NumberField
        label="Rated AC power"
        unit="W"
        path={[...path, 'ratedAcW']}
        value={array.ratedAcW}
        disabled={!canEdit}
        onTake={(value) => changeIt('Rated AC power', (target) => put(target, 'ratedAcW', value))}
      />
      <SelectField
        label="On the board of"
        path={[...path, 'partitionId']}
        value={array.partitionId}
        options={design.partitions.map((one) => ({ value: one.id, label: one.name }))}
        disabled={!canEdit}
        onTake={(value) => void changeIt('Board of the array', (target) => put(target, 'partitionId', value))}
      />
      <SelectField
        label="Held back in island"
        path={[...path, 'curtailedBy']}
        value={array.curtailedBy}
        options={CURTAILED}
        disabled={!canEdit}
        onTake={(value) => void changeIt('Held back', (target) => put(target, 'curtailedBy', value))}
      />
      <SelectField
        label="While a generator runs"
        path={[...path, 'withGenerator']}
        value={array.withGenerator}
        options={WITH_GENERATOR}
        disabled={!canEdit}
        onTake={(value) =>
          void changeIt('With the generator', (target) => put(target, 'withGenerator', value))
        }
      />
    </>
  );
}

function OneArray({ array }: { readonly array: PvArray }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const changeIt: ChangeArray = (label, recipe) =>
    change(`${label}: ${array.name}`, (draft: Design) => {
      const target = draft.arrays.find((one) => one.id === array.id);
      if (target !== undefined) recipe(target);
    });
  const path = ['arrays', array.id];
  return (
    <fieldset className="border-t border-rule py-2">
      <legend className="sr-only">{array.name}</legend>
      <div className="grid grid-cols-2 gap-x-3 gap-y-1 md:grid-cols-4">
        <TextField
          label="Array"
          path={[...path, 'name']}
          value={array.name}
          disabled={!canEdit}
          onTake={(value) =>
            value === ''
              ? [{ path, message: 'an array has a name' }]
              : changeIt('Name', (target) => (target.name = value))
          }
        />
        <SelectField
          label="Coupling"
          path={[...path, 'coupling']}
          value={array.coupling}
          options={COUPLINGS}
          disabled={!canEdit}
          onTake={(value) => void changeIt('Coupling', (target) => put(target, 'coupling', value))}
        />
        {array.coupling === 'dc' && <DcFields array={array} changeIt={changeIt} />}
        {array.coupling === 'ac' && <AcFields array={array} changeIt={changeIt} />}
      </div>
      <FindingLines checks={CHECKS} about={{ kind: 'array', id: array.id }} />
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() =>
            change(
              `Remove ${array.name}`,
              (draft) => void (draft.arrays = draft.arrays.filter((one) => one.id !== array.id)),
            )
          }
        >
          <Trash2 size={14} aria-hidden="true" /> Remove {array.name}
        </button>
      )}
    </fieldset>
  );
}

/** PV as far as backup needs it: strings on inputs with their cold and hot voltages, and AC-coupled roofs. */
export function ArraysPanel() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <section className="sheet p-3" aria-label="PV arrays">
      <h2>PV arrays</h2>
      {design.arrays.length === 0 && (
        <p className="text-quiet">
          No PV. Add an array for each roof of one module type, direction and tilt; each goes on one input of
          one inverter, or on a board by an inverter of its own.
        </p>
      )}
      {design.stacks.map((stack) => (
        <FindingLines
          key={stack.id}
          checks={['pv.ac-coupled', 'pv.storage']}
          about={{ kind: 'stack', id: stack.id }}
        />
      ))}
      {design.arrays.map((array) => (
        <OneArray key={array.id} array={array} />
      ))}
      {canEdit && (
        <button
          type="button"
          className="button mt-2"
          onClick={() =>
            change(
              'Add an array',
              (draft) => void draft.arrays.push({ id: newId('a'), name: `Array ${draft.arrays.length + 1}` }),
            )
          }
        >
          <Plus size={14} aria-hidden="true" /> Add an array
        </button>
      )}
    </section>
  );
}
