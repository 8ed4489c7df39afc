import type { Design, EquipmentType } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { catalogueNow } from '../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { SelectField, TextField } from '../../ui/fields.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';

type Instrument = Design['instruments'][number];

const PLACES = [
  { value: 'service', label: 'at the service' },
  { value: 'grid-port', label: 'at the grid port' },
  { value: 'backed-up-board', label: 'at the backed-up board' },
  { value: 'generator', label: 'at the generator' },
  { value: 'array', label: 'at the array' },
] as const;
const LINES = [
  { value: 'L1', label: 'L1' },
  { value: 'L2', label: 'L2' },
  { value: 'L3', label: 'L3' },
] as const;
const ARROWS = [
  { value: 'to-building', label: 'to the building' },
  { value: 'to-source', label: 'to grid or inverter' },
] as const;

function typesOf(design: Design, kind: Instrument['kind']) {
  const byId = new Map<string, EquipmentType>(
    [...catalogueNow(), ...design.types].map((type) => [type.id, type]),
  );
  return [...byId.values()]
    .filter((type) => type.kind === kind)
    .map(({ id, name }) => ({ value: id, label: name }));
}

function InstrumentForm({ instrument }: { readonly instrument: Instrument }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['instruments', instrument.id];
  const stack = design.stacks.find(({ id }) => id === instrument.readBy);
  const meters = design.instruments.filter(({ kind }) => kind === 'meter');
  const edit = (label: string, recipe: (one: Instrument) => void) =>
    change(label, (draft) => {
      const target = draft.instruments.find(({ id }) => id === instrument.id);
      if (target !== undefined) recipe(target);
    });
  return (
    <fieldset className="border-t border-rule py-2">
      <legend className="sr-only">{instrument.kind}</legend>
      <div className="grid grid-cols-2 gap-x-4">
        <SelectField
          label={instrument.kind === 'sensor' ? 'Sensor' : 'Meter'}
          path={[...path, 'typeId']}
          value={instrument.typeId}
          options={typesOf(design, instrument.kind)}
          disabled={!canEdit}
          onTake={(value) => edit('Type', (one) => put(one, 'typeId', value))}
        />
        <SelectField
          label="Looks"
          path={[...path, 'at']}
          value={instrument.at}
          options={PLACES}
          disabled={!canEdit}
          onTake={(value) => edit('Place', (one) => put(one, 'at', value))}
        />
        <SelectField
          label="Read by"
          path={[...path, 'readBy']}
          value={instrument.readBy}
          options={design.stacks.map(({ id, name }) => ({ value: id, label: name }))}
          disabled={!canEdit}
          onTake={(value) => edit('Read by', (one) => put(one, 'readBy', value))}
        />
        {(stack?.units.length ?? 0) > 1 && (
          <SelectField
            label="By its unit"
            path={[...path, 'readByUnitId']}
            value={instrument.readByUnitId}
            options={(stack?.units ?? []).map(({ id }, at) => ({ value: id, label: `unit ${at + 1}` }))}
            emptyLabel="the host"
            disabled={!canEdit}
            onTake={(value) => edit('Read by unit', (one) => put(one, 'readByUnitId', value))}
          />
        )}
        {instrument.kind === 'sensor' && (
          <>
            {meters.length > 0 && (
              <SelectField
                label="Leads go to"
                path={[...path, 'meterId']}
                value={instrument.meterId}
                options={meters.map((one) => ({ value: one.id, label: one.name ?? 'the meter' }))}
                emptyLabel="what reads it"
                disabled={!canEdit}
                onTake={(value) => edit('Leads of a sensor', (one) => put(one, 'meterId', value))}
              />
            )}
            <SelectField
              label="Line"
              path={[...path, 'line']}
              value={instrument.line}
              options={LINES}
              disabled={!canEdit}
              onTake={(value) => edit('Line', (one) => put(one, 'line', value))}
            />
            <SelectField
              label="Arrow points"
              path={[...path, 'arrow']}
              value={instrument.arrow}
              options={ARROWS}
              disabled={!canEdit}
              onTake={(value) => edit('Arrow', (one) => put(one, 'arrow', value))}
            />
            <TextField
              label="Ratio in the settings"
              path={[...path, 'ratio']}
              value={instrument.ratio ?? ''}
              disabled={!canEdit}
              onTake={(value) => edit('Ratio', (one) => put(one, 'ratio', value === '' ? undefined : value))}
            />
          </>
        )}
      </div>
      {canEdit && (
        <button
          type="button"
          className="button button-quiet mt-1"
          onClick={() =>
            change('Take an instrument away', (draft) => {
              draft.instruments = draft.instruments.filter(({ id }) => id !== instrument.id);
            })
          }
        >
          <Trash2 size={15} aria-hidden="true" /> Take it away
        </button>
      )}
      <FindingLines
        checks={['stack.instruments']}
        about={{ kind: 'part', id: `instrument ${instrument.id}` }}
      />
    </fieldset>
  );
}

/** Meters and sensors that inverters read by themselves. Those of a site controller stand with it in Stack. */
export function InstrumentsPanel() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const add = (kind: Instrument['kind']): void =>
    void change(`Add a ${kind}`, (draft) => {
      const [stack] = draft.stacks;
      delete draft.site.instruments;
      draft.instruments.push({
        id: newId('n'),
        kind,
        at: 'service',
        ...(stack === undefined ? {} : { readBy: stack.id }),
      });
    });
  return (
    <section className="sheet p-3" data-field="instruments" tabIndex={-1}>
      <h3 className="font-semibold">Meters and sensors</h3>
      <p className="text-[12.5px] text-quiet">
        On the service side of everything they must see, one sensor on each line. Prove the direction: a known
        load switched on raises the import on its line.
      </p>
      {design.instruments.map((one) => (
        <InstrumentForm key={one.id} instrument={one} />
      ))}
      {(design.instruments.length === 0 || design.site.instruments !== undefined) && (
        <label className="mt-1 flex items-center gap-1.5">
          <input
            type="checkbox"
            data-field="site/instruments"
            disabled={!canEdit}
            checked={design.site.instruments === 'not-needed'}
            onChange={({ target }) =>
              change('Whether a meter is needed', (draft) =>
                put(draft.site, 'instruments', target.checked ? 'not-needed' : undefined),
              )
            }
          />
          None is needed here: nothing of the grid has to be read
        </label>
      )}
      {canEdit && (
        <p className="mt-2 flex gap-2">
          <button type="button" className="button" onClick={() => add('sensor')}>
            <Plus size={15} aria-hidden="true" /> Sensor
          </button>
          <button type="button" className="button" onClick={() => add('meter')}>
            <Plus size={15} aria-hidden="true" /> Meter
          </button>
        </p>
      )}
    </section>
  );
}
