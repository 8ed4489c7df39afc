import type { Design } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';

type EarthPoint = Design['earthPoints'][number];
type Earth = EarthPoint['joins'][number];

const EARTHS: readonly { value: Earth; label: string }[] = [
  { value: 'chassis', label: 'inverter chassis' },
  { value: 'backed-up-earth', label: 'backed-up earth' },
  { value: 'grid-earth', label: 'grid earth' },
  { value: 'electrode', label: 'local electrode' },
  { value: 'generator-frame', label: 'generator frame' },
];

const YES_NO = [
  { value: 'yes', label: 'yes' },
  { value: 'no', label: 'no' },
] as const;
const NEUTRALS = [
  { value: 'switched', label: 'opens with the lines' },
  { value: 'solid', label: 'stays joined' },
] as const;

function PointForm({ point }: { readonly point: EarthPoint }) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const edit = (label: string, recipe: (one: EarthPoint) => void) =>
    change(label, (draft) => {
      const target = draft.earthPoints.find(({ id }) => id === point.id);
      if (target !== undefined) recipe(target);
    });
  const path = ['earthPoints', point.id];
  return (
    <fieldset className="border-t border-rule pt-2" data-field={path.join('/')} tabIndex={-1}>
      <legend className="sr-only">{point.name}</legend>
      <div className="grid grid-cols-2 gap-x-4">
        <TextField
          label="Earthing point"
          path={[...path, 'name']}
          value={point.name}
          disabled={!canEdit}
          onTake={(value) => edit('Earthing point', (one) => void (one.name = value))}
        />
        <NumberField
          label="Earthing conductor"
          unit="mm²"
          path={[...path, 'areaMm2']}
          value={point.areaMm2}
          disabled={!canEdit}
          onTake={(value) => edit('Earthing conductor', (one) => put(one, 'areaMm2', value))}
        />
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        {EARTHS.map(({ value, label }) => (
          <label key={value} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              disabled={!canEdit}
              checked={point.joins.includes(value)}
              onChange={({ target }) =>
                edit(`Joined: ${label}`, (one) => {
                  one.joins = target.checked
                    ? [...one.joins, value]
                    : one.joins.filter((other) => other !== value);
                })
              }
            />
            {label}
          </label>
        ))}
        <span className="flex-1" />
        {canEdit && (
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Take away ${point.name}`}
            onClick={() =>
              change('Take away an earthing point', (draft) => {
                draft.earthPoints = draft.earthPoints.filter(({ id }) => id !== point.id);
              })
            }
          >
            <Trash2 size={15} aria-hidden="true" />
          </button>
        )}
      </div>
    </fieldset>
  );
}

function SetFields() {
  const { design, canEdit, analysis } = useOpenJob();
  const change = useJob((store) => store.change);
  return (
    <>
      {analysis.installation.stacks.map(({ stack, type }) => {
        const path = ['stacks', stack.id];
        const needsKit = type.known && type.value.neutralEarthRelay === 'external-kit';
        const where = design.stacks.length > 1 ? ` of ${stack.name}` : '';
        const edit = (label: string, recipe: (one: typeof stack) => void) =>
          change(label, (draft) => {
            const target = draft.stacks.find(({ id }) => id === stack.id);
            if (target !== undefined) recipe(target);
          });
        return (
          <div key={stack.id} className="contents">
            <SelectField
              label={`Neutral–earth relay in island${where}`}
              path={[...path, 'neutralEarthRelay']}
              value={stack.neutralEarthRelay}
              options={[
                { value: 'on', label: 'on' },
                { value: 'off', label: 'off' },
              ]}
              emptyLabel="as its type does"
              disabled={!canEdit}
              onTake={(value) => edit('Neutral–earth relay', (one) => put(one, 'neutralEarthRelay', value))}
            />
            {needsKit && (
              <SelectField
                label={`External relay kit${where}`}
                path={[...path, 'relayKit']}
                value={stack.relayKit}
                options={[
                  { value: 'fitted', label: 'fitted' },
                  { value: 'none', label: 'none' },
                ]}
                disabled={!canEdit}
                onTake={(value) => edit('Relay kit', (one) => put(one, 'relayKit', value))}
              />
            )}
          </div>
        );
      })}
      {design.partitions.map((partition) => (
        <SelectField
          key={partition.id}
          label={`Neutral–earth link in ${partition.name}`}
          path={['partitions', partition.id, 'neutralEarthLink']}
          value={partition.neutralEarthLink}
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'none', label: 'none' },
          ]}
          emptyLabel="none"
          disabled={!canEdit}
          onTake={(value) =>
            change('Neutral–earth link', (draft) => {
              const target = draft.partitions.find(({ id }) => id === partition.id);
              if (target !== undefined) put(target, 'neutralEarthLink', value);
            })
          }
        />
      ))}
    </>
  );
}

/** Where neutral meets earth, and where the earths meet: what the walk over the modes needs to know. */
export function EarthingForm() {
  const { design, canEdit } = useOpenJob();
  const { site } = design;
  const change = useJob((store) => store.change);
  const hasBypass = site.maintenanceBypass === 'yes';
  return (
    <section className="sheet p-3">
      <h3 className="mb-1 font-semibold">Neutral and earth</h3>
      <p className="mb-2 text-[12.5px] text-quiet">
        Exactly one bond between neutral and earth in each mode. Local codes and the manuals decide where it
        belongs; prove dead before any bond is made or lifted.
      </p>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
        <SetFields />
        {hasBypass && (
          <>
            <SelectField
              label="Neutral of the maintenance bypass"
              path={['site', 'bypassNeutral']}
              value={site.bypassNeutral}
              options={NEUTRALS}
              disabled={!canEdit}
              onTake={(value) =>
                change('Neutral of the bypass', (draft) => put(draft.site, 'bypassNeutral', value))
              }
            />
            <SelectField
              label="Bypass interlocked with the inverter output"
              path={['site', 'bypassInterlocked']}
              value={site.bypassInterlocked}
              options={YES_NO}
              disabled={!canEdit}
              onTake={(value) =>
                change('Interlock of the bypass', (draft) => put(draft.site, 'bypassInterlocked', value))
              }
            />
          </>
        )}
        <SelectField
          label="Earth of the utility in island"
          path={['site', 'utilityEarth']}
          value={site.utilityEarth}
          options={[
            { value: 'kept', label: 'still there' },
            { value: 'may-be-lost', label: 'may be lost' },
          ]}
          disabled={!canEdit}
          onTake={(value) =>
            change('Earth of the utility', (draft) => put(draft.site, 'utilityEarth', value))
          }
        />
        <SelectField
          label="Local earth electrode"
          path={['site', 'localElectrode']}
          value={site.localElectrode}
          options={[
            { value: 'yes', label: 'yes' },
            { value: 'none', label: 'none' },
          ]}
          disabled={!canEdit}
          onTake={(value) => change('Local electrode', (draft) => put(draft.site, 'localElectrode', value))}
        />
        {site.localElectrode === 'yes' && (
          <NumberField
            label="Measured resistance of the electrode"
            unit="Ω"
            path={['site', 'electrodeOhm']}
            value={site.electrodeOhm}
            disabled={!canEdit}
            onTake={(value) =>
              change('Electrode resistance', (draft) => put(draft.site, 'electrodeOhm', value))
            }
          />
        )}
      </div>
      <div className="mt-2" data-field="earthPoints" tabIndex={-1}>
        {design.earthPoints.map((point) => (
          <PointForm key={point.id} point={point} />
        ))}
        {design.earthPoints.length === 0 && (
          <p className="text-unknown">Where the earths are joined is not known yet.</p>
        )}
        {canEdit && (
          <button
            type="button"
            className="button mt-2"
            onClick={() =>
              change('Add an earthing point', (draft) => {
                const wanted: Earth[] = ['chassis', 'backed-up-earth'];
                if (draft.site.grid !== 'none') wanted.push('grid-earth');
                if (draft.site.localElectrode === 'yes') wanted.push('electrode');
                if (draft.generators.length > 0) wanted.push('generator-frame');
                draft.earthPoints.push({ id: newId('e'), name: 'Main earthing bar', joins: wanted });
              })
            }
          >
            <Plus size={15} aria-hidden="true" /> Earthing point
          </button>
        )}
      </div>
    </section>
  );
}
