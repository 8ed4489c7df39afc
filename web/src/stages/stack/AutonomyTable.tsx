import { autonomy, type CompiledStack, describePlaces, formatQuantity } from '@bastion/core';
import { useOpenJob } from '../../state/job.ts';

const FROM = [
  { key: 'reserve', title: 'From the reserve' },
  { key: 'full', title: 'From full' },
] as const;
const LOADS = [
  { key: 'average', title: 'Average load' },
  { key: 'expected-peak', title: 'Expected peak' },
] as const;

/** How long the bank lasts: always from the reserve and from full, at the average load and at the peak. */
export function AutonomyTable({ compiled }: { readonly compiled: CompiledStack }) {
  const { design } = useOpenJob();
  return (
    <table className="condensed w-full text-right">
      <thead>
        <tr className="text-quiet">
          <th className="text-left font-medium">Autonomy</th>
          {LOADS.map((load) => (
            <th key={load.key} className="px-2 font-medium">
              {load.title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {FROM.map((from) => (
          <tr key={from.key} className="border-t border-rule">
            <th className="py-1 text-left font-semibold">{from.title}</th>
            {LOADS.map((load) => {
              const found = autonomy(compiled, from.key, load.key);
              if (found === undefined) return <td key={load.key}>no battery</td>;
              return (
                <td
                  key={load.key}
                  className="px-2"
                  title={
                    found.known
                      ? `${formatQuantity(found.value.energyWh, 'Wh')} usable, ${formatQuantity(found.value.part * found.value.loadW, 'W')} load on it`
                      : describePlaces(design, found.missing)
                  }
                >
                  {found.known ? (
                    formatQuantity(found.value.hours, 'h')
                  ) : (
                    <span className="text-unknown">not known</span>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
