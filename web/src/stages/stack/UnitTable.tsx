import { typeOptions } from './bank/BankForm.tsx';
import { type Line, type Stack, SUPPLY_LINES, type Unit } from '@bastion/core';
import { useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { SizeField } from '../../ui/SizeField.tsx';
import { withFigure } from './bank/bankEdits.ts';
import { useStackChange } from './useStackChange.ts';

const FREQUENCIES = [
  { value: '50', label: '50 Hz' },
  { value: '60', label: '60 Hz' },
] as const;
const RELAYS = [
  { value: 'on', label: 'on' },
  { value: 'off', label: 'off' },
] as const;

interface UnitRowProps {
  readonly stack: Stack;
  readonly unit: Unit;
  readonly number: number;
  readonly lines: readonly Line[];
}

function UnitRow({ stack, unit, number, lines }: UnitRowProps) {
  const { design, analysis, canEdit } = useOpenJob();
  const { changeStack } = useStackChange(stack.id);
  const path = ['stacks', stack.id, 'units', unit.id];
  const type = analysis.installation.stacks.find((one) => one.stack.id === stack.id)?.type;
  const parts = type?.known === true ? (type.value.firmwareParts ?? []) : [];
  const changeUnit = (label: string, recipe: (unit: Unit) => void) =>
    changeStack(`${label} of unit ${number}`, (target) => {
      const found = target.units.find((one) => one.id === unit.id);
      if (found !== undefined) recipe(found);
    });
  const words = (key: 'firmware' | 'serial' | 'batteryProfile', label: string) => (
    <TextField
      label={label}
      path={[...path, key]}
      value={unit[key] ?? ''}
      disabled={!canEdit}
      onTake={(value) => changeUnit(label, (target) => put(target, key, value === '' ? undefined : value))}
    />
  );
  return (
    <fieldset className="grid grid-cols-2 items-end gap-x-2 border-t border-rule py-1 md:grid-cols-3">
      <legend className="sr-only">Unit {number}</legend>
      <SelectField
        label={`Unit ${number}: line`}
        path={[...path, 'line']}
        value={unit.line}
        options={lines.map((line) => ({ value: line, label: line }))}
        emptyLabel={lines.length === 1 ? 'L1' : 'all or not known'}
        disabled={!canEdit}
        onTake={(value) => void changeUnit('Line', (target) => put(target, 'line', value))}
      />
      <SelectField
        label="Type"
        path={[...path, 'inverterTypeId']}
        value={unit.inverterTypeId}
        options={typeOptions(design, 'inverter')}
        emptyLabel="as the set"
        disabled={!canEdit}
        onTake={(value) => void changeUnit('Type', (target) => put(target, 'inverterTypeId', value))}
      />
      <NumberField
        label="Bus address"
        unit=""
        path={[...path, 'busAddress']}
        value={unit.busAddress}
        disabled={!canEdit}
        onTake={(value) => changeUnit('Bus address', (target) => put(target, 'busAddress', value))}
      />
      <SelectField
        label="Set to"
        path={[...path, 'frequencyHz']}
        value={unit.frequencyHz === undefined ? undefined : unit.frequencyHz === 50 ? '50' : '60'}
        options={FREQUENCIES}
        disabled={!canEdit}
        onTake={(value) =>
          void changeUnit('Frequency', (target) =>
            put(target, 'frequencyHz', value === undefined ? undefined : value === '50' ? 50 : 60),
          )
        }
      />
      <SelectField
        label="Neutral–earth relay"
        path={[...path, 'neutralEarthRelay']}
        value={unit.neutralEarthRelay}
        options={RELAYS}
        emptyLabel="as the set"
        disabled={!canEdit}
        onTake={(value) =>
          void changeUnit('Neutral–earth relay', (target) => put(target, 'neutralEarthRelay', value))
        }
      />
      <NumberField
        label="Output set to"
        unit="V"
        path={[...path, 'outputV']}
        value={unit.outputV}
        disabled={!canEdit}
        onTake={(value) => changeUnit('Output voltage', (target) => put(target, 'outputV', value))}
      />
      {parts.length === 0 && words('firmware', 'Firmware')}
      {words('serial', 'Serial')}
      {words('batteryProfile', 'Battery settings')}
      <NumberField
        label="AC lead"
        unit="m"
        path={[...path, 'acLead']}
        value={unit.acLead?.lengthM}
        disabled={!canEdit}
        onTake={(value) =>
          changeUnit('AC lead', (target) =>
            put(target, 'acLead', withFigure(target.acLead, 'lengthM', value)),
          )
        }
      />
      <SizeField
        label="AC lead size"
        path={[...path, 'acLead', 'areaMm2']}
        value={unit.acLead?.areaMm2}
        onTake={(value) =>
          changeUnit('Size of the AC lead', (target) =>
            put(target, 'acLead', withFigure(target.acLead, 'areaMm2', value)),
          )
        }
      />
      {parts.map((part) => (
        <TextField
          key={part}
          label={`Firmware, ${part}`}
          path={[...path, 'firmwareParts']}
          value={unit.firmwareParts?.find(({ id }) => id === part)?.version ?? ''}
          disabled={!canEdit}
          onTake={(version) =>
            changeUnit(`Firmware of ${part}`, (target) => {
              const others = (target.firmwareParts ?? []).filter(({ id }) => id !== part);
              const next = version === '' ? others : [...others, { id: part, version }];
              put(target, 'firmwareParts', next.length === 0 ? undefined : next);
            })
          }
        />
      ))}
    </fieldset>
  );
}

/** What differs from unit to unit. Faults live in such differences. */
export function UnitTable({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const { changeStack } = useStackChange(stack.id);
  const lines =
    design.site.supply === undefined ? SUPPLY_LINES['three-phase'] : SUPPLY_LINES[design.site.supply];
  const [first] = stack.units;
  return (
    <details className="mt-3">
      <summary className="font-semibold">
        Units one by one: type, line, address, relay, firmware, serial number, battery settings, AC lead
      </summary>
      {stack.units.map((unit, index) => (
        <UnitRow key={unit.id} stack={stack} unit={unit} number={index + 1} lines={lines} />
      ))}
      {canEdit && stack.units.length > 1 && first !== undefined && (
        <button
          type="button"
          className="button mt-1"
          onClick={() =>
            changeStack('Settings and AC lead as of unit 1', (target) => {
              for (const unit of target.units.slice(1)) {
                put(unit, 'batteryProfile', first.batteryProfile);
                put(unit, 'acLead', first.acLead);
              }
            })
          }
        >
          Battery settings and AC lead of unit 1 for all
        </button>
      )}
    </details>
  );
}
