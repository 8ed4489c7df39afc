import type { Problem, Stack } from '@bastion/core';
import { Plus, Trash2 } from 'lucide-react';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../../ui/fields.tsx';
import { FindingLines } from '../../../ui/FindingLines.tsx';

type Settings = NonNullable<Stack['settings']>;
type Window = NonNullable<Settings['windows']>[number];

const MODES = [
  { value: 'own-use', label: 'own use' },
  { value: 'backup-first', label: 'backup first' },
  { value: 'by-time', label: 'by time windows' },
] as const;

const DOES = [
  { value: 'charge', label: 'charges from the grid' },
  { value: 'discharge', label: 'discharges' },
  { value: 'hold', label: 'holds its charge' },
] as const;

type EditSettings = (label: string, recipe: (settings: Settings) => void) => readonly Problem[];

function WindowRow({
  window,
  path,
  onEdit,
}: {
  readonly window: Window;
  readonly path: readonly string[];
  readonly onEdit: EditSettings;
}) {
  const { canEdit } = useOpenJob();
  const edit = (label: string, recipe: (one: Window) => void) =>
    onEdit(label, ({ windows }) => {
      const found = windows?.find(({ id }) => id === window.id);
      if (found !== undefined) recipe(found);
    });
  return (
    <>
      <TextField
        label="From"
        path={[...path, 'from']}
        value={window.from}
        disabled={!canEdit}
        onTake={(value) => edit('Start of a window', (one) => (one.from = value))}
      />
      <TextField
        label="To"
        path={[...path, 'to']}
        value={window.to}
        disabled={!canEdit}
        onTake={(value) => edit('End of a window', (one) => (one.to = value))}
      />
      <SelectField
        label="In it the set"
        path={[...path, 'does']}
        value={window.does}
        options={DOES}
        disabled={!canEdit}
        onTake={(value) => edit('What a window does', (one) => (one.does = value ?? one.does))}
      />
      <div className="flex items-end">
        {canEdit && (
          <button
            type="button"
            className="button button-quiet"
            onClick={() =>
              void onEdit('Take a window away', (settings) => {
                settings.windows = (settings.windows ?? []).filter(({ id }) => id !== window.id);
              })
            }
          >
            <Trash2 size={15} aria-hidden="true" /> Take it away
          </button>
        )}
      </div>
    </>
  );
}

function OneSet({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['stacks', stack.id, 'settings'];
  const { settings } = stack;
  const onStack = (label: string, recipe: (one: Stack) => void) =>
    change(`${label}: ${stack.name}`, (draft) => {
      const found = draft.stacks.find(({ id }) => id === stack.id);
      if (found !== undefined) recipe(found);
    });
  const onEdit: EditSettings = (label, recipe) =>
    onStack(label, (one) => {
      one.settings ??= {};
      recipe(one.settings);
    });
  const hasGenerator = design.generators.some(({ stackId }) => stackId === stack.id);
  const level = (key: 'generatorFromSoc' | 'generatorToSoc', label: string) => (
    <NumberField
      label={label}
      path={[...path, key]}
      value={settings?.[key]}
      unit="%"
      scale={100}
      absent="not set"
      disabled={!canEdit}
      onTake={(value) => onEdit(label, (one) => put(one, key, value))}
    />
  );
  return (
    <fieldset className="no-print grid grid-cols-2 gap-x-4 gap-y-1 md:grid-cols-4">
      <legend className="text-[13px] text-quiet">{stack.name}: what a person decides</legend>
      <NumberField
        label="Discharge, each unit"
        path={['stacks', stack.id, 'dischargeCurrentA']}
        value={stack.dischargeCurrentA}
        unit="A"
        absent="as its type"
        disabled={!canEdit}
        onTake={(value) => onStack('Discharge current', (one) => put(one, 'dischargeCurrentA', value))}
      />
      {design.site.grid !== 'none' && (
        <SelectField
          label="Work mode on grid"
          path={[...path, 'workMode']}
          value={settings?.workMode}
          options={MODES}
          disabled={!canEdit}
          onTake={(value) => onEdit('Work mode', (one) => put(one, 'workMode', value))}
        />
      )}
      {hasGenerator && level('generatorFromSoc', 'Generator is called at')}
      {hasGenerator && level('generatorToSoc', 'Generator is let go at')}
      {(settings?.windows ?? []).map((window) => (
        <WindowRow key={window.id} window={window} path={[...path, 'windows', window.id]} onEdit={onEdit} />
      ))}
      {canEdit && settings?.workMode === 'by-time' && (
        <button
          type="button"
          className="button col-span-2 w-fit"
          onClick={() =>
            void onEdit('Add a window', (one) => {
              one.windows = [
                ...(one.windows ?? []),
                { id: newId('w'), from: '00:00', to: '06:00', does: 'charge' },
              ];
            })
          }
        >
          <Plus size={15} aria-hidden="true" /> Add a window
        </button>
      )}
      <div className="col-span-2 md:col-span-4">
        <FindingLines checks={['stack.settings']} about={{ kind: 'stack', id: stack.id }} />
      </div>
    </fieldset>
  );
}

/** What of the settings no figure of the design tells; the sheet below wants the rest from it. */
export function SettingsForm() {
  const { design } = useOpenJob();
  return design.stacks.map((stack) => <OneSet key={stack.id} stack={stack} />);
}
