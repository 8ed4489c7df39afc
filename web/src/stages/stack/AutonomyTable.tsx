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

type Found = ReturnType<typeof autonomy>;

function LoadCell({ found }: { readonly found: Found }) {
  const { design } = useOpenJob();
  if (found === undefined) return <td>no battery</td>;
  return (
    <td
      className="px-2"
      title={
        found.known
          ? `${formatQuantity(found.value.energyWh, 'Wh')} usable, ${formatQuantity(found.value.part * found.value.loadW, 'W')} load on it`
          : describePlaces(design, found.missing)
      }
    >
      {found.known ? formatQuantity(found.value.hours, 'h') : <span className="text-unknown">not known</span>}
    </td>
  );
}

/** The outage laid on the day: from its worst hour, and from the hour that the site states. */
function HourCell({ found }: { readonly found: Found }) {
  if (found === undefined) return <td>—</td>;
  if (!found.known) return <td className="px-2 text-unknown">not known</td>;
  const { byHour } = found.value;
  if (byHour === undefined)
    return (
      <td className="px-2 text-quiet" title="No item says when it runs.">
        as average
      </td>
    );
  return (
    <td className="px-2">
      <strong>{formatQuantity(byHour.worst.hours, 'h')}</strong>{' '}
      <span className="text-quiet">from {byHour.worst.startH}:00</span>
      {byHour.typed !== undefined && (
        <div>
          {formatQuantity(byHour.typed.hours, 'h')}{' '}
          <span className="text-quiet">from {formatQuantity(byHour.typed.startH, 'h')}</span>
        </div>
      )}
    </td>
  );
}

/** How long the bank lasts: always from the reserve and from full, at the average load and at the peak. */
export function AutonomyTable({ compiled }: { readonly compiled: CompiledStack }) {
  return (
    <table className="condensed w-full text-right">
      <thead>
        <tr className="text-quiet">
          <th className="text-left font-medium">Autonomy</th>
          <th className="px-2 font-medium">Worst hour</th>
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
            <HourCell found={autonomy(compiled, from.key, 'average')} />
            {LOADS.map((load) => (
              <LoadCell key={load.key} found={autonomy(compiled, from.key, load.key)} />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
