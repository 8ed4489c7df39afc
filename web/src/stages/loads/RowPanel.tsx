import {
  type Circuit,
  factorFinder,
  formatNumber,
  formatQuantity,
  type Line,
  magnitude,
  circuitPower,
  startSource,
  stepsOfStart,
} from '@bastion/core';
import { Trash2 } from 'lucide-react';
import { type SyntheticEvent, useState } from 'react';
import { z } from 'zod';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { useMayChangeNote } from '../../state/ownNote.ts';
import { useSession } from '../../state/session.ts';
import { readNumber } from '../../ui/readNumber.ts';
import { useKept } from '../../ui/useKept.ts';
import type { Row } from './columns.ts';

const SOURCE_WORDS = {
  'own multiple': 'an own multiple of the running load',
  'locked-rotor current': 'the locked-rotor current on the data plate',
  'code letter': 'the code letter and horsepower on the data plate',
  'start class': 'the planning figure of its start class',
} as const;

/** Where the start of an item comes from, and what it comes to. */
function StartWords({ row }: { readonly row: Extract<Row, { kind: 'item' }> }) {
  const { supply } = useOpenJob().analysis.installation;
  const source = startSource(row.item);
  if (source === undefined)
    return <p className="text-unknown">How it starts is not known: choose a class, or give a data plate.</p>;
  if (!supply.known) return <p>Start from {SOURCE_WORDS[source]}; the supply is not known yet.</p>;
  const steps = stepsOfStart(row.circuit, row.item, supply.value, []);
  if (steps === undefined)
    return <p className="text-unknown">Start from {SOURCE_WORDS[source]}; a figure for it is missing.</p>;
  const words =
    steps.length === 0
      ? 'no surge that an inverter has to carry'
      : steps
          .map(
            (step) =>
              `${formatNumber(step.multiple)} × running for ${formatNumber(step.durationS)} s at pf ${formatNumber(step.powerFactor)}`,
          )
          .join(', then ');
  return (
    <p>
      Start from {SOURCE_WORDS[source]}: <strong>{words}</strong>.
    </p>
  );
}

/** A reading that is not logged yet. */
const halfTyped = z.object({ line: z.enum(['L1', 'L2', 'L3']).optional(), text: z.string() });
const NOTHING_TYPED: z.infer<typeof halfTyped> = { text: '' };

function ClampForm({ circuit, lines }: { readonly circuit: Circuit; readonly lines: readonly Line[] }) {
  const change = useJob((store) => store.change);
  const session = useSession((store) => store.session);
  const id = useOpenJob().id;
  const [typed, setTyped, forget] = useKept(`clamp-${id}-${circuit.id}`, halfTyped, NOTHING_TYPED);
  const line = typed.line ?? circuit.lines?.[0];
  const { text } = typed;
  const [failure, setFailure] = useState('');
  const add = (event: SyntheticEvent): void => {
    event.preventDefault();
    const currentA = readNumber(text);
    if (currentA === undefined || line === undefined) {
      setFailure(
        line === undefined ? 'Say which line was clamped.' : `"${text}" is not a current in ampere.`,
      );
      return;
    }
    const by = session.kind === 'in' ? session.user.name : 'not signed in';
    const [problem] = change(`Clamp reading of ${circuit.name}`, (draft) => {
      const target = draft.circuits.find((one) => one.id === circuit.id);
      if (target === undefined) return;
      target.clampReadings = [
        ...(target.clampReadings ?? []),
        { id: newId('k'), line, currentA, takenAt: new Date().toISOString(), by },
      ];
    });
    setFailure(problem?.message ?? '');
    if (problem === undefined) forget();
  };
  return (
    <form className="mt-1 flex flex-wrap items-end gap-2" onSubmit={add}>
      <label className="block">
        <span className="block text-[13px] text-quiet">Line</span>
        <select
          className="input w-20!"
          value={line ?? ''}
          onChange={(event) => setTyped({ ...typed, line: lines.find((one) => one === event.target.value) })}
        >
          <option value="">choose</option>
          {lines.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        <span className="block text-[13px] text-quiet">Measured current, A</span>
        <input
          className="input w-32! text-right"
          inputMode="decimal"
          value={text}
          onChange={(event) => setTyped({ ...typed, text: event.target.value })}
        />
      </label>
      <button type="submit" className="button">
        Log the reading
      </button>
      <p role="alert" className="w-full font-semibold text-over empty:hidden">
        {failure}
      </p>
    </form>
  );
}

/** Estimated and measured current of a circuit, side by side; the measured one counts. */
function Clamped({ circuit }: { readonly circuit: Circuit }) {
  const { canEdit, canNote, analysis } = useOpenJob();
  const mayChange = useMayChangeNote();
  const change = useJob((store) => store.change);
  const { supply } = analysis.installation;
  const lines = circuit.lines ?? (supply.known ? supply.value.lines : []);
  const readings = circuit.clampReadings ?? [];
  const voltageV = supply.known ? supply.value.lineVoltageV : undefined;
  const power = supply.known ? circuitPower(circuit, supply.value, factorFinder(supply.value)) : undefined;
  const estimate = lines.flatMap((line) => {
    const at = supply.known ? supply.value.lines.indexOf(line) : -1;
    const va = power?.missing.length === 0 ? power.expected[at] : undefined;
    return va === undefined || voltageV === undefined
      ? [`${line} not known`]
      : [`${line} ${formatQuantity(magnitude(va) / voltageV, 'A')}`];
  });
  return (
    <section aria-label={`Clamp readings of ${circuit.name}`}>
      <h3 className="font-semibold">Clamp readings of {circuit.name}</h3>
      <p className="text-quiet">
        Estimated at the expected peak: {estimate.join(', ') || 'line not known'}.
        {readings.length > 0 && ' Measured beats estimated in the continuous limits.'}
      </p>
      {readings.length > 0 && (
        <table className="w-full">
          <tbody>
            {readings.map((reading) => (
              <tr key={reading.id} className="border-t border-rule">
                <td className="py-0.5">{reading.line}</td>
                <td className="text-right font-semibold">{formatQuantity(reading.currentA, 'A')}</td>
                <td className="pl-3 text-quiet">
                  {new Date(reading.takenAt).toLocaleString()}, {reading.by}
                </td>
                <td className="text-right">
                  {mayChange(reading) && (
                    <button
                      type="button"
                      className="button button-quiet"
                      aria-label={`Remove the reading of ${formatQuantity(reading.currentA, 'A')} on ${reading.line}`}
                      onClick={() =>
                        change(`Remove a clamp reading of ${circuit.name}`, (draft) => {
                          const target = draft.circuits.find((one) => one.id === circuit.id);
                          if (target?.clampReadings === undefined) return;
                          target.clampReadings = target.clampReadings.filter((one) => one.id !== reading.id);
                        })
                      }
                    >
                      <Trash2 size={14} aria-hidden="true" />
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {(canEdit || canNote) && <ClampForm key={circuit.id} circuit={circuit} lines={lines} />}
    </section>
  );
}

/** What belongs to the row in hand and does not fit a cell: where its start comes from, and what was clamped. */
export function RowPanel({ row }: { readonly row: Row | undefined }) {
  if (row === undefined) return null;
  return (
    <div className="sheet grid content-start gap-3 p-3">
      {row.kind === 'item' && (
        <section aria-label="Start data">
          <h3 className="font-semibold">{row.item.name}</h3>
          <StartWords row={row} />
        </section>
      )}
      <Clamped circuit={row.circuit} />
    </div>
  );
}
