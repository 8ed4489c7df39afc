import {
  ARRANGEMENT_WORDS,
  type Arrangement,
  arrangementSchema,
  type Design,
  type Line,
  type Stack,
  SUPPLY_LINES,
} from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { BankForm, typeOptions } from './bank/BankForm.tsx';
import { setArrangement, setUnitCount, stackIn } from './stackEdits.ts';

const linesOf = (design: Design): readonly Line[] =>
  design.site.supply === undefined ? [] : SUPPLY_LINES[design.site.supply];

/** The sets that a type and a supply allow come first; a choice against them is possible, and is a finding. */
function arrangementOptions(design: Design, stack: Stack): { value: Arrangement; label: string }[] {
  const type = design.types.find((one) => one.id === stack.inverterTypeId);
  const allowed = type?.kind === 'inverter' ? type.arrangements : arrangementSchema.options;
  const label = (value: Arrangement): string =>
    ARRANGEMENT_WORDS[value] + (allowed.includes(value) ? '' : ' (not for this type)');
  return [...arrangementSchema.options]
    .sort((a, b) => Number(allowed.includes(b)) - Number(allowed.includes(a)))
    .map((value) => ({ value, label: label(value) }));
}

function InverterFields({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const path = ['stacks', stack.id];
  const changeStack = (label: string, recipe: (stack: Stack, draft: Design) => void) =>
    change(label, (draft) => {
      const target = stackIn(draft, stack.id);
      if (target !== undefined) recipe(target, draft);
    });
  return (
    <>
      <SelectField
        label="Inverter type"
        path={[...path, 'inverterTypeId']}
        value={stack.inverterTypeId}
        options={typeOptions(design, 'inverter')}
        disabled={!canEdit}
        onTake={(value) => changeStack('Inverter type', (target) => put(target, 'inverterTypeId', value))}
      />
      <SelectField
        label="Arrangement"
        path={[...path, 'arrangement']}
        value={stack.arrangement}
        options={arrangementOptions(design, stack)}
        disabled={!canEdit}
        onTake={(value) =>
          changeStack('Arrangement', (target, draft) => setArrangement(target, value, linesOf(draft)))
        }
      />
      <NumberField
        label="Units"
        unit=""
        path={[...path, 'units']}
        value={stack.units.length}
        disabled={!canEdit}
        onTake={(value) => {
          if (value === undefined || !Number.isInteger(value) || value < 1 || value > 64)
            return [{ path, message: 'a stack has 1 to 64 units' }];
          return changeStack('Units', (target, draft) => setUnitCount(target, value, linesOf(draft)));
        }}
      />
      {stack.arrangement === 'split-phase-autotransformer' && (
        <SelectField
          label="Autotransformer"
          path={[...path, 'autotransformerTypeId']}
          value={stack.autotransformerTypeId}
          options={typeOptions(design, 'autotransformer')}
          disabled={!canEdit}
          onTake={(value) =>
            changeStack('Autotransformer', (target) => put(target, 'autotransformerTypeId', value))
          }
        />
      )}
      <SelectField
        label="Transfer device"
        path={[...path, 'transferDeviceTypeId']}
        value={stack.transferDeviceTypeId}
        options={typeOptions(design, 'transfer-device')}
        emptyLabel="none"
        disabled={!canEdit}
        onTake={(value) =>
          changeStack('Transfer device', (target) => put(target, 'transferDeviceTypeId', value))
        }
      />
      <NumberField
        label="Charge setting, each unit"
        unit="A"
        path={[...path, 'chargeCurrentA']}
        value={stack.chargeCurrentA}
        disabled={!canEdit}
        onTake={(value) => changeStack('Charge setting', (target) => put(target, 'chargeCurrentA', value))}
      />
      <NumberField
        label="Charging from grid, each unit"
        unit="W"
        path={[...path, 'gridChargeW']}
        value={stack.gridChargeW}
        disabled={!canEdit}
        onTake={(value) => changeStack('Grid charging', (target) => put(target, 'gridChargeW', value))}
      />
      {design.generators.some((one) => one.stackId === stack.id && one.connection === 'generator-port') && (
        <NumberField
          label="Charging from generator, each unit"
          unit="W"
          path={[...path, 'generatorChargeW']}
          value={stack.generatorChargeW}
          disabled={!canEdit}
          onTake={(value) =>
            changeStack('Generator charging', (target) => put(target, 'generatorChargeW', value))
          }
        />
      )}
    </>
  );
}

/** What a person decides about a stack; all of it at the edge of the picture. */
export function StackForm({ stack }: { readonly stack: Stack }) {
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-1.5 lg:grid-cols-1">
      <InverterFields stack={stack} />
      <BankForm stack={stack} />
    </div>
  );
}
