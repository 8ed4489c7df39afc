import type { Module, Stack } from '@bastion/core';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { put } from '../../../state/put.ts';
import { NumberField, SelectField } from '../../../ui/fields.tsx';
import { typeOptions } from './BankForm.tsx';
import { moduleIn, unitIn, withFigure } from './bankEdits.ts';
import { groupsOf } from './bankLayout.ts';
import { SizeField } from '../../../ui/SizeField.tsx';
import { LeadFields } from './LeadFields.tsx';

const FITTED = [
  { value: 'yes', label: 'Fitted' },
  { value: 'taken-out', label: 'Taken out' },
] as const;

function ModuleRow({
  stack,
  module,
  number,
  isChosen,
}: {
  stack: Stack;
  module: Module;
  number: number;
  isChosen: boolean;
}) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['stacks', stack.id, 'bank', 'modules', module.id];
  const changeIt = (label: string, recipe: (target: Module) => void) =>
    change(`${label} of module ${number}`, (draft) => {
      const target = moduleIn(draft, stack.id, module.id);
      if (target !== undefined) recipe(target);
    });
  return (
    <fieldset
      className={`grid grid-cols-2 gap-x-3 border-t border-rule py-1 md:grid-cols-6 ${isChosen ? 'bg-chosen' : ''}`}
    >
      <legend className="sr-only">Module {number}</legend>
      <NumberField
        label={`Module ${number}: own lead`}
        unit="m"
        absent="as the others"
        path={[...path, 'lead']}
        value={module.lead?.lengthM}
        disabled={!canEdit}
        onTake={(value) =>
          changeIt('Lead', (target) => put(target, 'lead', withFigure(target.lead, 'lengthM', value)))
        }
      />
      <SizeField
        label="Its size"
        absent="as the others"
        path={[...path, 'lead', 'areaMm2']}
        value={module.lead?.areaMm2}
        onTake={(value) =>
          changeIt('Lead size', (target) => put(target, 'lead', withFigure(target.lead, 'areaMm2', value)))
        }
      />
      <NumberField
        label="State of charge"
        unit="%"
        scale={100}
        path={[...path, 'stateOfCharge']}
        value={module.stateOfCharge}
        disabled={!canEdit}
        onTake={(value) => changeIt('State of charge', (target) => put(target, 'stateOfCharge', value))}
      />
      <NumberField
        label="Inner resistance, times"
        unit="×"
        path={[...path, 'resistanceFactor']}
        value={module.resistanceFactor}
        disabled={!canEdit}
        onTake={(value) => changeIt('Resistance', (target) => put(target, 'resistanceFactor', value))}
      />
      <SelectField
        label="Its type"
        path={[...path, 'batteryTypeId']}
        value={module.batteryTypeId}
        options={typeOptions(design, 'battery')}
        emptyLabel="as the others"
        disabled={!canEdit}
        onTake={(value) => void changeIt('Type', (target) => put(target, 'batteryTypeId', value))}
      />
      <SelectField
        label="In the bank"
        path={[...path, 'fitted']}
        value={module.fitted ?? 'yes'}
        options={FITTED}
        disabled={!canEdit}
        onTake={(value) =>
          void changeIt('In the bank', (target) =>
            put(target, 'fitted', value === 'taken-out' ? value : undefined),
          )
        }
      />
    </fieldset>
  );
}

/** Modules and inverters one by one: what differs from the others. */
export function OneByOne({
  stack,
  chosenId,
}: {
  readonly stack: Stack;
  readonly chosenId: string | undefined;
}) {
  const { canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  if (bank === undefined) return null;
  const onBars = bank.joining?.startsWith('bars') === true || bank.joining === 'groups-on-bar';
  const fitted = bank.modules.filter((module) => module.fitted !== 'taken-out').length;
  const places = bank.joining === 'groups-on-bar' ? groupsOf(bank, fitted).length : fitted;
  return (
    <details className="mt-2" open={chosenId !== undefined || undefined}>
      <summary className="font-semibold">Modules and inverters one by one</summary>
      {stack.units.map((unit, index) => (
        <fieldset key={unit.id} className="grid grid-cols-2 gap-x-3 border-t border-rule py-1 md:grid-cols-5">
          <legend className="sr-only">Inverter {index + 1}</legend>
          <LeadFields
            label={`Inverter ${index + 1}: own lead`}
            path={['stacks', stack.id, 'units', unit.id, 'batteryLead']}
            lead={unit.batteryLead}
            absent="as the others"
            onTake={(lead) =>
              change(`Battery lead of inverter ${index + 1}`, (draft) => {
                const target = unitIn(draft, stack.id, unit.id);
                if (target !== undefined) put(target, 'batteryLead', lead);
              })
            }
          />
          {onBars && (
            <NumberField
              label="Place on the bars"
              unit=""
              hint={`1 to ${places}`}
              path={['stacks', stack.id, 'units', unit.id, 'barPlace']}
              value={unit.barPlace}
              disabled={!canEdit}
              onTake={(value) =>
                change(`Place of inverter ${index + 1}`, (draft) => {
                  const target = unitIn(draft, stack.id, unit.id);
                  if (target !== undefined) put(target, 'barPlace', value);
                })
              }
            />
          )}
        </fieldset>
      ))}
      {bank.modules.map((module, index) => (
        <ModuleRow
          key={module.id}
          stack={stack}
          module={module}
          number={index + 1}
          isChosen={module.id === chosenId}
        />
      ))}
    </details>
  );
}
