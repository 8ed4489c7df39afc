import type { Design, EquipmentType, Stack } from '@bastion/core';
import { catalogueNow } from '../../../state/catalogue.ts';
import { newId, useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { setModuleCount, stackIn } from '../stackEdits.ts';
import { useStackChange } from '../useStackChange.ts';

/** Types of one kind to choose from: those copied into the job, then the rest of the catalogue. */
export function typeOptions(design: Design, kind: EquipmentType['kind']): { value: string; label: string }[] {
  const byId = new Map<string, EquipmentType>();
  for (const type of [...catalogueNow(), ...design.types]) byId.set(type.id, type);
  return [...byId.values()]
    .filter((type) => type.kind === kind)
    .map((type) => ({ value: type.id, label: type.name }));
}

const HAS_BANK = [
  { value: 'bank', label: 'A battery bank' },
  { value: 'none', label: 'None' },
] as const;

const OWN_BANK = [{ value: 'one-unit', label: 'one: each has a bank like it' }] as const;

type BankNumber = 'reserveSoc' | 'cutoffSoc' | 'breakerA';

/** What a person decides about the bank of a stack. */
export function BankForm({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['stacks', stack.id, 'bank'];
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  const { changeBank } = useStackChange(stack.id);
  const number = (field: BankNumber, label: string, unit: string, scale = 1) => (
    <NumberField
      label={label}
      unit={unit}
      scale={scale}
      path={[...path, field]}
      value={bank?.[field]}
      disabled={!canEdit}
      onTake={(value) => changeBank(label, (target) => put(target, field, value))}
    />
  );
  return (
    <>
      <SelectField
        label="Battery"
        path={path}
        value={stack.bank === undefined ? undefined : bank === undefined ? 'none' : 'bank'}
        options={HAS_BANK}
        disabled={!canEdit}
        onTake={(value) =>
          change('Battery', (draft) => {
            const target = stackIn(draft, stack.id);
            if (target !== undefined)
              put(target, 'bank', value === 'bank' ? { modules: [{ id: newId('m') }] } : value);
          })
        }
      />
      {bank !== undefined && (
        <>
          <SelectField
            label="Battery type"
            path={[...path, 'batteryTypeId']}
            value={bank.batteryTypeId}
            options={typeOptions(design, 'battery')}
            disabled={!canEdit}
            onTake={(value) => changeBank('Battery type', (target) => put(target, 'batteryTypeId', value))}
          />
          <NumberField
            label="Modules"
            unit=""
            path={[...path, 'modules']}
            value={bank.modules.length}
            disabled={!canEdit}
            onTake={(value) => {
              if (value === undefined || !Number.isInteger(value) || value < 1 || value > 512)
                return [{ path, message: 'a bank has 1 to 512 modules' }];
              return change('Modules', (draft) => {
                const target = stackIn(draft, stack.id);
                if (target !== undefined) setModuleCount(target, value);
              });
            }}
          />
          {stack.units.length > 1 && (
            <SelectField
              label="Inverters on this bank"
              path={[...path, 'serves']}
              value={bank.serves === 'one-unit' ? 'one-unit' : undefined}
              options={OWN_BANK}
              emptyLabel="all share it"
              disabled={!canEdit}
              onTake={(value) =>
                changeBank('Inverters on this bank', (target) => put(target, 'serves', value))
              }
            />
          )}
          {number('reserveSoc', 'Backup reserve', '%', 100)}
          {number('cutoffSoc', 'Cut-off', '%', 100)}
          <SelectField
            label="Battery breaker or fuse"
            path={[...path, 'breakerTypeId']}
            value={bank.breakerTypeId}
            options={typeOptions(design, 'protective-device')}
            emptyLabel="only its rating is known"
            disabled={!canEdit}
            onTake={(value) => changeBank('Battery breaker', (target) => put(target, 'breakerTypeId', value))}
          />
          {bank.breakerTypeId === undefined && number('breakerA', 'Its rating', 'A')}
        </>
      )}
    </>
  );
}
