import {
  type CircuitProtection,
  faultProtection,
  fieldLabel,
  type FaultSource,
  filterLeakageMa,
  formatNumber,
  formatQuantity,
  LEAKAGE_SHARE,
  type Trip,
} from '@bastion/core';
import { CircleCheck, CircleHelp, CircleX } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useOpenJob } from '../../state/job.ts';
import { fieldHref } from '../../ui/fieldLinks.ts';
import { useAfterPaint } from '../../ui/useAfterPaint.ts';
import { ShowAll } from './ShowAll.tsx';

/** More rows than this are drawn when somebody asks for them. */
const FIRST = 60;
/** Rating of the usual residual-current device against shock, mA. */
const USUAL_RESIDUAL_MA = 30;

const SOURCES: readonly { readonly source: FaultSource; readonly title: string }[] = [
  { source: 'grid', title: 'Fed by the grid' },
  { source: 'island', title: 'In island' },
  { source: 'generator', title: 'Fed by a generator' },
];

/** What ends a fault from line to neutral where the release of the device does not. */
const WITHOUT_TRIP: Record<FaultSource, string> = {
  grid: 'the slow release of the device on the grid',
  island: 'the inverter shutting down',
  generator: 'the protection of the generator itself',
};

const TRIP_WORDS: Record<Trip, string> = { yes: 'trips', uncertain: 'may trip', no: 'does not trip' };
const TRIP_ICON = { yes: CircleCheck, uncertain: CircleHelp, no: CircleX } as const;
const TRIP_INK: Record<Trip, string> = { yes: 'text-within', uncertain: 'text-tight', no: 'text-over' };

function Answer({ row, source }: { readonly row: CircuitProtection; readonly source: FaultSource }) {
  const { id } = useOpenJob();
  const found = row.answers.filter((one) => one.source === source);
  return found.map(({ answer }, index) => {
    if (!answer.known) {
      const [first] = answer.missing;
      const isType = first?.[0] === 'types';
      return (
        <span key={index} className="block text-unknown">
          {first === undefined || isType ? (
            'not stated by its type'
          ) : (
            <Link to={fieldHref(id, first)} className="underline">
              {fieldLabel(String(first.at(-1)))} not known
            </Link>
          )}
        </span>
      );
    }
    const { trip, currentA, lastsMs } = answer.value;
    const Icon = TRIP_ICON[trip];
    return (
      <span key={index} className="block">
        <Icon size={14} aria-hidden="true" className={`inline ${TRIP_INK[trip]}`} /> {TRIP_WORDS[trip]},{' '}
        {formatQuantity(currentA, 'A')}
        {lastsMs !== undefined && ` for ${formatNumber(lastsMs)} ms`}
      </span>
    );
  });
}

/** What protects where the release does not open for certain. */
function instead({ answers, residualDevice }: CircuitProtection): string {
  const trips = answers.flatMap(({ answer }) => (answer.known ? [answer.value.trip] : []));
  const isWhole = trips.length === answers.length;
  // What is not known of one source is no protection against it.
  if (trips.every((trip) => trip === 'yes'))
    return trips.length === 0 ? '' : isWhole ? 'its device' : 'not known until every source is';
  const type =
    residualDevice === undefined ? ', its type not stated by the inverter' : ` of type ${residualDevice}`;
  const left = SOURCES.filter(({ source }) =>
    answers.some((one) => one.source === source && one.answer.known && one.answer.value.trip !== 'yes'),
  ).map(({ source }) => WITHOUT_TRIP[source]);
  return `earth faults: a residual-current device${type}; line to neutral: ${left.join(', ')}`;
}

function Leakage() {
  const { stacks } = useOpenJob().analysis.installation;
  return stacks.map((compiled) => {
    const leakage = filterLeakageMa(compiled);
    if (!leakage.known)
      return (
        <p key={compiled.stack.id} className="mt-1 text-unknown">
          What the filters of {compiled.stack.name} leak is not known: residual-current devices cannot be
          judged.
        </p>
      );
    const allowed = LEAKAGE_SHARE * USUAL_RESIDUAL_MA;
    return (
      <p key={compiled.stack.id} className="mt-1">
        The filters of {compiled.stack.name} leak {formatNumber(leakage.value)} mA together. A
        residual-current device of {USUAL_RESIDUAL_MA} mA in front of all of them should see{' '}
        {formatNumber(allowed)} mA at most
        {leakage.value > allowed && (
          <strong className="text-over">
            : it would trip without a fault. Divide them, or choose another device
          </strong>
        )}
        .
      </p>
    );
  });
}

const Row = memo(function Row({
  row,
  sources,
}: {
  readonly row: CircuitProtection;
  readonly sources: typeof SOURCES;
}) {
  const words = instead(row);
  return (
    <>
      <tr className="border-t border-rule align-top">
        <th scope="row" className="py-0.5 pr-3 text-left font-normal">
          {row.circuit.name}
        </th>
        <td className="pr-3 whitespace-nowrap">
          {row.device.known ? row.device.value : <span className="text-unknown">not known</span>}
        </td>
        {sources.map(({ source }) => (
          <td key={source} className="pr-3">
            <Answer row={row} source={source} />
          </td>
        ))}
      </tr>
      {words !== '' && (
        <tr>
          <td />
          <td colSpan={1 + sources.length} className="pb-1 text-[13px] text-quiet">
            What protects: {words}.
          </td>
        </tr>
      )}
    </>
  );
});

/** Whether the device of each backed-up circuit opens on a fault, by what feeds it: in island the current is small and short. */
export function FaultTable() {
  // Nothing here is typed: an edit elsewhere is answered before these rows follow it.
  const { installation } = useAfterPaint(useOpenJob().analysis);
  const [isAll, setIsAll] = useState(false);
  const rows = useMemo(() => faultProtection(installation), [installation]);
  const sources = useMemo(
    () =>
      SOURCES.filter(({ source }) =>
        rows.some(({ answers }) => answers.some((one) => one.source === source)),
      ),
    [rows],
  );
  if (rows.length === 0)
    return <p className="text-quiet">No circuit is on a backed-up board yet: boards come from Partitions.</p>;
  return (
    <>
      <p className="text-[13px] text-quiet">
        A fault from line to neutral at the far end of each circuit, copper hot, against the magnetic band of
        its device. Prove it by measurement; local codes and the manual decide what must disconnect.
      </p>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Fault protection">
        <table className="w-full min-w-[640px]">
          <thead>
            <tr className="text-left text-quiet">
              <th className="font-normal">Circuit</th>
              <th className="font-normal">Device</th>
              {sources.map(({ source, title }) => (
                <th key={source} className="font-normal">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {(isAll ? rows : rows.slice(0, FIRST)).map((row) => (
              <Row key={row.circuit.id} row={row} sources={sources} />
            ))}
          </tbody>
        </table>
        {!isAll && rows.length > FIRST && <ShowAll count={rows.length} onShow={() => setIsAll(true)} />}
      </div>
      <Leakage />
    </>
  );
}
