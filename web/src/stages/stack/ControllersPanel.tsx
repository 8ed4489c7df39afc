import type { Problem, SiteController } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';
import { typeOptions } from './bank/BankForm.tsx';

const ROLES = [
  { value: 'grid', label: 'grid' },
  { value: 'generation', label: 'generation' },
  { value: 'load', label: 'load' },
] as const;

function Meters({
  controller,
  changeIt,
}: {
  readonly controller: SiteController;
  readonly changeIt: (label: string, recipe: (target: SiteController) => void) => readonly Problem[];
}) {
  const { design, canEdit } = useOpenJob();
  return (
    <>
      {controller.meters.map((meter) => {
        const path = ['controllers', controller.id, 'meters', meter.id];
        const change = (label: string, recipe: (target: SiteController['meters'][number]) => void) =>
          changeIt(label, (target) => {
            const found = target.meters.find((one) => one.id === meter.id);
            if (found !== undefined) recipe(found);
          });
        return (
          <div key={meter.id} className="grid grid-cols-[1fr_2fr_5rem_5rem_1fr_auto] items-end gap-2">
            <SelectField
              label="Meter for"
              path={[...path, 'role']}
              value={meter.role}
              options={ROLES}
              disabled={!canEdit}
              onTake={(value) =>
                value !== undefined && void change('Role', (target) => (target.role = value))
              }
            />
            <SelectField
              label="Meter type"
              path={[...path, 'typeId']}
              value={meter.typeId}
              options={typeOptions(design, 'meter')}
              disabled={!canEdit}
              onTake={(value) => void change('Meter type', (target) => put(target, 'typeId', value))}
            />
            <NumberField
              label="Address"
              unit=""
              path={[...path, 'address']}
              value={meter.address}
              disabled={!canEdit}
              onTake={(value) => change('Address', (target) => put(target, 'address', value))}
            />
            <TextField
              label="Port"
              path={[...path, 'port']}
              value={meter.port ?? ''}
              disabled={!canEdit}
              onTake={(value) =>
                change('Port', (target) => put(target, 'port', value === '' ? undefined : value))
              }
            />
            <SelectField
              label="Cable comes from"
              path={[...path, 'after']}
              value={meter.after}
              options={[
                { value: 'controller', label: 'the controller' },
                ...controller.meters
                  .filter(({ id }) => id !== meter.id)
                  .map(({ id, role }) => ({ value: id, label: `the ${role} meter` })),
              ]}
              emptyLabel="the one before"
              disabled={!canEdit}
              onTake={(value) => void change('Meter bus', (target) => put(target, 'after', value))}
            />
            {canEdit && (
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Remove the ${meter.role} meter`}
                onClick={() =>
                  changeIt('Remove a meter', (target) => {
                    target.meters = target.meters.filter((one) => one.id !== meter.id);
                  })
                }
              >
                <Trash2 size={14} aria-hidden="true" />
              </button>
            )}
          </div>
        );
      })}
      {canEdit && (
        <button
          type="button"
          className="button mt-1"
          onClick={() =>
            changeIt('Add a meter', (target) => {
              const role = ROLES.find(({ value }) => !target.meters.some((one) => one.role === value))?.value;
              target.meters.push({ id: newId('m'), role: role ?? 'load' });
            })
          }
        >
          <Plus size={14} aria-hidden="true" /> Add a meter
        </button>
      )}
    </>
  );
}

function OneController({ controller }: { readonly controller: SiteController }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const changeIt = (label: string, recipe: (target: SiteController) => void): readonly Problem[] =>
    change(`${label}: ${controller.name}`, (draft) => {
      const target = draft.controllers.find((one) => one.id === controller.id);
      if (target !== undefined) recipe(target);
    });
  return (
    <div className="border-t border-rule py-2">
      <SelectField
        label={`${controller.name}: type`}
        path={['controllers', controller.id, 'typeId']}
        value={controller.typeId}
        options={typeOptions(design, 'controller')}
        disabled={!canEdit}
        onTake={(value) => void changeIt('Controller type', (target) => put(target, 'typeId', value))}
      />
      <fieldset className="mt-1 flex flex-wrap gap-x-4">
        <legend className="text-[13px] text-quiet">It directs</legend>
        {design.stacks.map((stack) => (
          <label key={stack.id} className="flex items-center gap-1">
            <input
              type="checkbox"
              disabled={!canEdit}
              checked={controller.stackIds.includes(stack.id)}
              onChange={(event) =>
                changeIt('Directs', (target) => {
                  const others = target.stackIds.filter((id) => id !== stack.id);
                  target.stackIds = event.target.checked ? [...others, stack.id] : others;
                })
              }
            />
            {stack.name}
          </label>
        ))}
      </fieldset>
      <Meters controller={controller} changeIt={changeIt} />
      <FindingLines
        checks={['stack.controller', 'wiring.bus-shape']}
        about={{ kind: 'controller', id: controller.id }}
      />
      {canEdit && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() =>
            change(
              `Remove ${controller.name}`,
              (draft) =>
                void (draft.controllers = draft.controllers.filter((one) => one.id !== controller.id)),
            )
          }
        >
          <Trash2 size={14} aria-hidden="true" /> Remove {controller.name}
        </button>
      )}
    </div>
  );
}

/** Several AC-coupled sets under one controller, with its grid, generation and load meters. */
export function ControllersPanel() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const sets = design.stacks.filter((stack) => stack.arrangement === 'ac-coupled-storage');
  if (sets.length === 0 && design.controllers.length === 0) return null;
  return (
    <section className="sheet p-3" aria-label="Site controller">
      <h2>Site controller</h2>
      {sets.map((stack) => (
        <FindingLines
          key={stack.id}
          checks={['stack.controller', 'stack.outlet']}
          about={{ kind: 'stack', id: stack.id }}
        />
      ))}
      {design.controllers.map((controller) => (
        <OneController key={controller.id} controller={controller} />
      ))}
      {canEdit && design.controllers.length < 4 && (
        <button
          type="button"
          className="button mt-2"
          onClick={() =>
            change('Add a site controller', (draft) => {
              draft.controllers.push({
                id: newId('c'),
                name:
                  draft.controllers.length === 0
                    ? 'Site controller'
                    : `Controller ${draft.controllers.length + 1}`,
                stackIds: draft.stacks
                  .filter((stack) => stack.arrangement === 'ac-coupled-storage')
                  .map((stack) => stack.id),
                meters: [],
              });
            })
          }
        >
          <Plus size={14} aria-hidden="true" /> Add a site controller
        </button>
      )}
    </section>
  );
}
