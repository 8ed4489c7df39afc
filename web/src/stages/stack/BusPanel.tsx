import { type CheckId, type CompiledStack, modesOf, planBus, type Stack } from '@bastion/core';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { SelectField } from '../../ui/fields.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { type Cable, CableTable } from './CableTable.tsx';
import { UnitShares } from './UnitShares.tsx';
import { useStackChange } from './useStackChange.ts';

const CHECKS: readonly CheckId[] = [
  'stack.parallel-bus',
  'stack.bus-ends',
  'stack.host',
  'stack.battery-profile',
  'stack.firmware',
  'stack.ac-leads',
  'stack.unit-share',
];

const KEYS = { from: 'fromUnitId', fromPort: 'fromPort', to: 'toUnitId', toPort: 'toPort' } as const;

const unitChoices = (stack: Stack) =>
  stack.units.map((unit, index) => ({ value: unit.id, label: `Unit ${index + 1}` }));

function Terminators({ stack }: { readonly stack: Stack }) {
  const { canEdit } = useOpenJob();
  const { changeStack } = useStackChange(stack.id);
  return (
    <fieldset
      className="mt-2 flex flex-wrap gap-x-4"
      data-field={`stacks/${stack.id}/terminated`}
      tabIndex={-1}
    >
      <legend className="text-[13px] text-quiet">Terminator set or plugged at</legend>
      {stack.units.map((unit, index) => (
        <label key={unit.id} className="flex items-center gap-1">
          <input
            type="checkbox"
            disabled={!canEdit}
            checked={stack.terminated?.includes(unit.id) ?? false}
            onChange={(event) =>
              changeStack(`Terminator of unit ${index + 1}`, (target) => {
                const others = (target.terminated ?? []).filter((id) => id !== unit.id);
                target.terminated = event.target.checked ? [...others, unit.id] : others;
              })
            }
          />
          Unit {index + 1}
        </label>
      ))}
    </fieldset>
  );
}

/** How the units are joined to one set: cables of the parallel bus, its ends, and the host. */
export function BusPanel({ compiled }: { readonly compiled: CompiledStack }) {
  const { analysis, canEdit } = useOpenJob();
  const modeId = useJob((store) => store.modeId);
  const lost = modesOf(analysis.installation).find((mode) => mode.id === modeId)?.lostUnit;
  const { stack, type } = compiled;
  const { changeStack } = useStackChange(stack.id);
  if (stack.units.length < 2) return null;
  const rule = type.known ? type.value.parallelBus : undefined;
  const plan = type.known ? planBus(stack, type.value) : undefined;
  const cables = (stack.busLinks ?? []).map((link): Cable => ({
    id: link.id,
    from: link.fromUnitId,
    fromPort: link.fromPort,
    to: link.toUnitId,
    toPort: link.toPort,
  }));
  const units = unitChoices(stack);
  return (
    <Fold
      title="Parallel bus, host and AC leads"
      checks={CHECKS}
      about={{ kind: 'stack', id: stack.id }}
      isBare={stack.busLinks === undefined}
    >
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {canEdit && plan !== undefined && (
          <button
            type="button"
            className="button"
            onClick={() =>
              changeStack('Parallel bus by the rule of the type', (target) => {
                target.busLinks = [...plan.busLinks];
                target.terminated = [...plan.terminated];
              })
            }
          >
            Plan the bus by the type’s rule
          </button>
        )}
        <div className="w-44">
          <SelectField
            label="Host"
            path={['stacks', stack.id, 'hostUnitId']}
            value={stack.hostUnitId}
            options={units}
            disabled={!canEdit}
            onTake={(value) => void changeStack('Host', (target) => put(target, 'hostUnitId', value))}
          />
        </div>
        {rule !== undefined && (
          <p className="w-full text-quiet">
            This type: {rule.fromPort} to {rule.toPort}, one {rule.shape};{' '}
            {rule.cable === 'supplied-only' ? 'only with the cable supplied.' : 'any suitable cable.'}
          </p>
        )}
      </div>
      <CableTable
        title="Cables of the parallel bus"
        path={['stacks', stack.id, 'busLinks']}
        cables={cables}
        from={units}
        to={units}
        ports={rule === undefined ? [] : [rule.fromPort, rule.toPort]}
        canEdit={canEdit}
        onChange={(id, part, value) =>
          void changeStack('Cable of the parallel bus', (target) => {
            const link = target.busLinks?.find((one) => one.id === id);
            if (link !== undefined) link[KEYS[part]] = value;
          })
        }
        onAdd={() =>
          void changeStack('Add a bus cable', (target) => {
            const [first, second] = target.units;
            if (first === undefined || second === undefined) return;
            target.busLinks = [
              ...(target.busLinks ?? []),
              {
                id: newId('b'),
                fromUnitId: first.id,
                fromPort: rule?.fromPort ?? '?',
                toUnitId: second.id,
                toPort: rule?.toPort ?? '?',
              },
            ];
          })
        }
        onRemove={(id) =>
          void changeStack('Take out a bus cable', (target) => {
            target.busLinks = target.busLinks?.filter((link) => link.id !== id) ?? [];
          })
        }
      />
      <Terminators stack={stack} />
      <UnitShares compiled={compiled} lostUnitId={lost?.stackId === stack.id ? lost.unitId : undefined} />
    </Fold>
  );
}
