import {
  type Bank,
  bankOfSet,
  type CheckId,
  type CompiledStack,
  planComms,
  plannedAddress,
} from '@bastion/core';
import { newId, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { Fold } from '../../../ui/Fold.tsx';
import { type Cable, CableTable } from '../CableTable.tsx';
import { useStackChange } from '../useStackChange.ts';

const CHECKS: readonly CheckId[] = [
  'bank.loop',
  'bank.comms',
  'bank.addresses',
  'bank.bus-ends',
  'bank.management',
  'bank.rule',
  'bank.series',
];

const LOOPS = [
  { value: 'closed', label: 'Closed: the battery tells the inverters' },
  { value: 'open', label: 'Open: the inverters work to voltages' },
] as const;

const HOST = { value: 'host', label: 'Inverter (host)' };

const moduleChoices = (bank: Bank) =>
  bank.modules.map((module, index) => ({ value: module.id, label: `Module ${index + 1}` }));

function SetPoints({ stackId, bank }: { readonly stackId: string; readonly bank: Bank }) {
  const { canEdit } = useOpenJob();
  const { changeBank } = useStackChange(stackId);
  const set = bank.comms?.setPoints;
  const field = (key: 'chargeV' | 'floatV' | 'cutoffV', label: string) => (
    <NumberField
      label={label}
      unit="V"
      path={['stacks', stackId, 'bank', 'comms', 'setPoints', key]}
      value={set?.[key]}
      disabled={!canEdit}
      onTake={(value) =>
        changeBank(label, (target) => {
          if (target.comms === undefined) return;
          const next = { ...target.comms.setPoints };
          put(next, key, value);
          target.comms.setPoints = next;
        })
      }
    />
  );
  return (
    <div
      className="mt-2 grid grid-cols-3 gap-3"
      data-field={`stacks/${stackId}/bank/comms/setPoints`}
      tabIndex={-1}
    >
      {field('chargeV', 'Charge voltage')}
      {field('floatV', 'Float voltage')}
      {field('cutoffV', 'Cut-off voltage')}
    </div>
  );
}

/** What is set on a module, and where it stands: a bus that goes on in another pile may have to run back there. */
const MODULE_FIGURES = [
  { key: 'address', words: 'address' },
  { key: 'pile', words: 'pile' },
  { key: 'level', words: 'level from below' },
] as const;

function Addresses({ stackId, bank }: { readonly stackId: string; readonly bank: Bank }) {
  const { canEdit } = useOpenJob();
  const { changeBank } = useStackChange(stackId);
  return (
    <details className="mt-2">
      <summary>Addresses, piles and terminator, module by module</summary>
      <div className="grid grid-cols-2 gap-x-3 md:grid-cols-4">
        {bank.modules.map((module, index) => (
          <div key={module.id}>
            {MODULE_FIGURES.map(({ key, words }) => (
              <NumberField
                key={key}
                label={`Module ${index + 1}: ${words}`}
                unit=""
                path={['stacks', stackId, 'bank', 'modules', module.id, key]}
                value={module[key]}
                disabled={!canEdit}
                onTake={(value) =>
                  changeBank(`Module ${index + 1}: ${words}`, (target) => {
                    const one = target.modules.find((found) => found.id === module.id);
                    if (one !== undefined) put(one, key, value);
                  })
                }
              />
            ))}
            <label className="flex items-center gap-1 text-[13px]">
              <input
                type="checkbox"
                disabled={!canEdit}
                checked={bank.comms?.terminated?.includes(module.id) ?? false}
                onChange={(event) =>
                  changeBank(`Terminator of module ${index + 1}`, ({ comms }) => {
                    if (comms === undefined) return;
                    const others = (comms.terminated ?? []).filter((id) => id !== module.id);
                    comms.terminated = event.target.checked ? [...others, module.id] : others;
                  })
                }
              />
              terminator
            </label>
            {bank.comms?.loop === 'closed' && (
              <label className="flex items-center gap-1 text-[13px]">
                <input
                  type="checkbox"
                  disabled={!canEdit}
                  checked={bank.comms.offBus?.includes(module.id) ?? false}
                  onChange={(event) =>
                    changeBank(`Module ${index + 1} off the bus`, ({ comms }) => {
                      if (comms === undefined) return;
                      const others = (comms.offBus ?? []).filter((id) => id !== module.id);
                      const next = event.target.checked ? [...others, module.id] : others;
                      put(comms, 'offBus', next.length === 0 ? undefined : next);
                    })
                  }
                />
                off the bus, by voltages
              </label>
            )}
          </div>
        ))}
      </div>
    </details>
  );
}

/** How inverters and battery understand each other: loop, protocol, cables, addresses, terminator. */
export function CommsPanel({ compiled }: { readonly compiled: CompiledStack }) {
  const { canEdit } = useOpenJob();
  const { stack, type } = compiled;
  const found = bankOfSet(compiled);
  const { changeBank } = useStackChange(stack.id);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  if (bank === undefined) return null;
  const battery = found.known && found.value !== 'none' ? found.value.type : undefined;
  const inverter = type.known ? type.value : undefined;
  const plan =
    battery === undefined || inverter === undefined ? undefined : planComms(bank, battery, inverter);
  const path = ['stacks', stack.id, 'bank', 'comms'];
  const chain = battery?.commsChain;
  const modules = moduleChoices(bank);
  const protocols = [...new Set([...(battery?.commsProtocols ?? []), ...(inverter?.batteryProtocols ?? [])])];
  const changeComms = (label: string, recipe: (comms: NonNullable<Bank['comms']>) => void) =>
    void changeBank(label, ({ comms }) => {
      if (comms !== undefined) recipe(comms);
    });
  return (
    <Fold
      title="Battery communication"
      checks={CHECKS}
      about={{ kind: 'stack', id: stack.id }}
      isBare={bank.comms === undefined}
    >
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <div className="w-64">
          <SelectField
            label="Loop"
            path={path}
            value={bank.comms?.loop}
            options={LOOPS}
            disabled={!canEdit}
            onTake={(loop) =>
              void changeBank('Loop', (target) =>
                put(target, 'comms', loop === undefined ? undefined : { links: [], ...target.comms, loop }),
              )
            }
          />
        </div>
        {bank.comms?.loop === 'closed' && (
          <div className="w-32">
            <SelectField
              label="Protocol"
              path={[...path, 'protocol']}
              value={bank.comms.protocol}
              options={protocols.map((value) => ({ value, label: value }))}
              disabled={!canEdit}
              onTake={(value) => changeComms('Protocol', (comms) => put(comms, 'protocol', value))}
            />
          </div>
        )}
        {canEdit && plan !== undefined && battery !== undefined && (
          <button
            type="button"
            className="button"
            onClick={() =>
              void changeBank('Battery bus by the rule of the type', (target) => {
                target.comms = plan;
                target.modules
                  .filter((module) => module.fitted !== 'taken-out')
                  .forEach((module, place) => put(module, 'address', plannedAddress(battery, place)));
              })
            }
          >
            Plan a closed loop by the types’ rules
          </button>
        )}
      </div>
      {(bank.comms?.loop === 'open' || (bank.comms?.offBus?.length ?? 0) > 0) && (
        <SetPoints stackId={stack.id} bank={bank} />
      )}
      {bank.comms?.loop === 'closed' && (
        <>
          <CableTable
            title="Cables of the battery bus"
            path={[...path, 'links']}
            cables={bank.comms.links.map((link): Cable => link)}
            from={[HOST, ...modules]}
            to={modules}
            ports={[inverter?.batteryCommsPort, chain?.hostPort, chain?.fromPort, chain?.toPort].flatMap(
              (port) => (port === undefined ? [] : [port]),
            )}
            canEdit={canEdit}
            onChange={(id, part, value) =>
              changeComms('Cable of the battery bus', ({ links }) => {
                const link = links.find((one) => one.id === id);
                if (link !== undefined) link[part] = value;
              })
            }
            onAdd={() =>
              changeComms('Add a bus cable', ({ links }) => {
                const [first] = modules;
                if (first !== undefined)
                  links.push({
                    id: newId('l'),
                    from: 'host',
                    fromPort: inverter?.batteryCommsPort ?? '?',
                    to: first.value,
                    toPort: chain?.hostPort ?? '?',
                  });
              })
            }
            onRemove={(id) =>
              changeComms('Take out a bus cable', (comms) => {
                comms.links = comms.links.filter((link) => link.id !== id);
              })
            }
          />
          <Addresses stackId={stack.id} bank={bank} />
        </>
      )}
    </Fold>
  );
}
