import { type Stack, SUPPLY_LINES } from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { TextField } from '../../ui/fields.tsx';
import { stackIn } from './stackEdits.ts';

/** What differs from unit to unit: its line, firmware and serial number. Faults live in such differences. */
export function UnitTable({ stack }: { readonly stack: Stack }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const lines =
    design.site.supply === undefined ? SUPPLY_LINES['three-phase'] : SUPPLY_LINES[design.site.supply];
  const changeUnit = (unitId: string, label: string, field: 'firmware' | 'serial' | 'line', value: string) =>
    change(label, (draft) => {
      const unit = stackIn(draft, stack.id)?.units.find((one) => one.id === unitId);
      if (unit === undefined) return;
      if (field === 'line')
        put(
          unit,
          'line',
          lines.find((line) => line === value),
        );
      else put(unit, field, value === '' ? undefined : value);
    });
  return (
    <details className="mt-3">
      <summary className="font-semibold">Units one by one: line, firmware, serial number</summary>
      <div className="mt-2 grid gap-2">
        {stack.units.map((unit, index) => (
          <div key={unit.id} className="grid grid-cols-[4rem_6rem_1fr_1fr] items-start gap-2">
            <span className="pt-6">Unit {index + 1}</span>
            <label className="block">
              <span className="block text-[13px] text-quiet">Line</span>
              <select
                className="input"
                data-field={`stacks/${stack.id}/units/${unit.id}/line`}
                disabled={!canEdit}
                value={unit.line ?? ''}
                onChange={(event) =>
                  changeUnit(unit.id, `Line of unit ${index + 1}`, 'line', event.target.value)
                }
              >
                <option value="">{lines.length === 1 ? 'L1' : 'all or not known'}</option>
                {lines.map((line) => (
                  <option key={line} value={line}>
                    {line}
                  </option>
                ))}
              </select>
            </label>
            <TextField
              label="Firmware"
              path={['stacks', stack.id, 'units', unit.id, 'firmware']}
              value={unit.firmware ?? ''}
              disabled={!canEdit}
              onTake={(value) => changeUnit(unit.id, `Firmware of unit ${index + 1}`, 'firmware', value)}
            />
            <TextField
              label="Serial number"
              path={['stacks', stack.id, 'units', unit.id, 'serial']}
              value={unit.serial ?? ''}
              disabled={!canEdit}
              onTake={(value) => changeUnit(unit.id, `Serial number of unit ${index + 1}`, 'serial', value)}
            />
          </div>
        ))}
      </div>
    </details>
  );
}
