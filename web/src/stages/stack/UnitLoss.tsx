import { type CompiledStack, formatQuantity, type Remains, remainsWithout } from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { SelectField } from '../../ui/fields.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';

function words({ stops, lines, darkLines, darkCircuits, carriedCircuits }: Remains): string {
  if (stops) return 'The set stops as a whole, by its type: nothing is carried.';
  const carried = lines.map(({ line, usableVa }) => `${line} ${formatQuantity(usableVa, 'VA')}`).join(', ');
  const dark =
    darkLines.length === 0
      ? ''
      : ` ${darkLines.join(' and ')} dark${darkCircuits.length === 0 ? '' : `, with it ${darkCircuits.join(', ')}`}.`;
  return `${carried}; ${carriedCircuits === 1 ? '1 circuit' : `${carriedCircuits} circuits`} carried.${dark}`;
}

/** What a set still carries with each unit lost: outcomes that are the same stand once. */
function RemainsTable({ compiled }: { readonly compiled: CompiledStack }) {
  const rows = new Map<string, { readonly units: number[]; readonly remains: Remains }>();
  compiled.stack.units.forEach((unit, index) => {
    const found = remainsWithout(compiled, unit.id);
    if (!found.known) return;
    const key = words(found.value);
    const before = rows.get(key);
    if (before === undefined) rows.set(key, { units: [index + 1], remains: found.value });
    else before.units.push(index + 1);
  });
  if (rows.size === 0) return <p className="text-unknown">What remains is not known yet.</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-quiet">
          <th className="pr-3 font-normal">Lost</th>
          <th className="pr-3 font-normal">What remains</th>
          <th className="text-right font-normal">From the reserve</th>
        </tr>
      </thead>
      <tbody>
        {[...rows].map(([text, { units, remains }]) => (
          <tr key={text} className="border-t border-rule align-top">
            <th scope="row" className="py-1 pr-3 text-left font-semibold whitespace-nowrap">
              Unit {units.join(', ')}
            </th>
            <td className="py-1 pr-3">{text}</td>
            <td className="py-1 text-right whitespace-nowrap">
              {remains.hours === undefined
                ? 'no battery'
                : remains.hours.known
                  ? formatQuantity(remains.hours.value, 'h')
                  : 'not known'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Losing an inverter as a question of its own: whether it must be survived, and what remains. */
export function UnitLoss({ compiled }: { readonly compiled: CompiledStack }) {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  if (compiled.stack.units.length < 2) return null;
  return (
    <section className="sheet mt-3 p-3" aria-label="When one inverter is lost">
      <h3 className="font-semibold">When one inverter is lost</h3>
      <div className="mt-1 max-w-80">
        <SelectField
          label="Must it be survived"
          path={['site', 'surviveUnitLoss']}
          value={design.site.surviveUnitLoss}
          options={[
            { value: 'yes', label: 'yes: every limit holds without it' },
            { value: 'no', label: 'no: show what remains' },
          ]}
          emptyLabel="not decided"
          disabled={!canEdit}
          onTake={(value) =>
            change('Loss of an inverter', (draft) => put(draft.site, 'surviveUnitLoss', value))
          }
        />
      </div>
      <FindingLines
        checks={['stack.unit-loss']}
        about={{ kind: 'stack', id: compiled.stack.id }}
        onlyTrouble
      />
      <RemainsTable compiled={compiled} />
    </section>
  );
}
