import { counted, type DateOrder, type EnergyUnit, formatQuantity } from '@bastion/core';
import { FileClock } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { FilePicker } from '../../ui/FilePicker.tsx';
import { Modal } from '../../ui/Modal.tsx';
import { openMeterFile, type OpenMeterFile } from '../../workers/intervals.ts';
import type { IntervalChoices, Summarised } from '../../workers/intervals.worker.ts';

const UNITS: readonly EnergyUnit[] = ['kWh', 'Wh', 'kW', 'W'];
const ORDERS: readonly { readonly value: DateOrder; readonly label: string }[] = [
  { value: 'year-first', label: 'year, month, day' },
  { value: 'day-first', label: 'day, month, year' },
  { value: 'month-first', label: 'month, day, year' },
];
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
/** Browsers leave UTC, and sometimes the zone they stand in, out of their list. */
const ZONES = [...new Set([HERE, 'UTC', ...Intl.supportedValuesOf('timeZone')])];

function firstChoices(file: OpenMeterFile): IntervalChoices {
  const guess =
    file.opened.kind === 'rows'
      ? file.opened.guess
      : {
          hasHeading: false,
          time: 0,
          value: 0,
          unit: 'Wh' as const,
          dateOrder: 'year-first' as const,
          stamp: 'start' as const,
        };
  return { ...guess, timeZone: HERE, southern: false };
}

function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <label className="block">
      <span className="block text-[13px] text-quiet">{label}</span>
      {children}
    </label>
  );
}

function RowChoices({
  heading,
  choices,
  onChoices,
}: {
  readonly heading: readonly string[];
  readonly choices: IntervalChoices;
  readonly onChoices: (choices: IntervalChoices) => void;
}) {
  const column = (key: 'time' | 'value', label: string) => (
    <Labelled label={label}>
      <select
        className="input"
        value={choices[key]}
        onChange={(event) => onChoices({ ...choices, [key]: Number(event.target.value) })}
      >
        {heading.map((title, at) => (
          <option key={at} value={at}>
            {choices.hasHeading && title !== '' ? title : `Column ${at + 1}`}
          </option>
        ))}
      </select>
    </Labelled>
  );
  return (
    <div className="grid gap-2 sm:grid-cols-3">
      {column('time', 'Date and time')}
      {column('value', 'Reading')}
      <Labelled label="Unit of the reading">
        <select
          className="input"
          value={choices.unit}
          onChange={(event) =>
            onChoices({ ...choices, unit: UNITS.find((one) => one === event.target.value) ?? choices.unit })
          }
        >
          {UNITS.map((unit) => (
            <option key={unit}>{unit}</option>
          ))}
        </select>
      </Labelled>
      <Labelled label="Order of the date">
        <select
          className="input"
          value={choices.dateOrder ?? ''}
          onChange={(event) =>
            onChoices({
              ...choices,
              dateOrder: ORDERS.find((one) => one.value === event.target.value)?.value,
            })
          }
        >
          <option value="">not certain: choose</option>
          {ORDERS.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </Labelled>
      <Labelled label="The time written is">
        <select
          className="input"
          value={choices.stamp}
          onChange={(event) =>
            onChoices({ ...choices, stamp: event.target.value === 'end' ? 'end' : 'start' })
          }
        >
          <option value="start">the start of the interval</option>
          <option value="end">the end of the interval</option>
        </select>
      </Labelled>
      <label className="flex items-center gap-2 pt-5">
        <input
          type="checkbox"
          checked={choices.hasHeading}
          onChange={(event) => onChoices({ ...choices, hasHeading: event.target.checked })}
        />
        The first row is a heading
      </label>
    </div>
  );
}

function Outcome({ found }: { readonly found: Summarised | undefined }) {
  if (found === undefined) return <p className="text-quiet">Reading…</p>;
  if (!found.ok) return <p className="font-semibold text-over">{found.message}</p>;
  const { figures, bad, badCount, repeated } = found;
  return (
    <div className="grid gap-1">
      <p>
        <strong>{counted(figures.readings, 'reading')}</strong> of {figures.intervalMin} minutes, from{' '}
        {new Date(figures.firstAt).toLocaleString()} to {new Date(figures.lastAt).toLocaleString()}
        {figures.missing > 0 && `, ${counted(figures.missing, 'interval')} missing`}.
      </p>
      <p>
        Peak <strong>{formatQuantity(figures.peakW, 'W')}</strong> on{' '}
        {new Date(figures.peakAt).toLocaleString()}, as an average over {figures.intervalMin} minutes: the
        true peak lies higher, so limits use it times the crest.
      </p>
      {repeated > 0 && (
        <p className="text-quiet">
          {counted(repeated, 'reading')} in the hour that autumn repeats: told apart by their order.
        </p>
      )}
      {badCount > 0 && (
        <details>
          <summary className="font-semibold text-over">{counted(badCount, 'row')} left out</summary>
          <ul className="max-h-40 overflow-y-auto">
            {bad.map((one) => (
              <li key={one.row}>
                <span className="text-quiet">Row {one.row}</span> {one.reason}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

function Choosing({ file, onDone }: { readonly file: OpenMeterFile; readonly onDone: () => void }) {
  const { design } = useOpenJob();
  const change = useJob((store) => store.change);
  const [choices, setChoices] = useState(() => firstChoices(file));
  const [answer, setAnswer] = useState<{ for: IntervalChoices; found: Summarised }>();
  const [scope, setScope] = useState('building');
  const isZone = ZONES.includes(choices.timeZone);
  useEffect(() => {
    let isCurrent = true;
    if (isZone)
      void file.summarise(choices).then((found) => {
        if (isCurrent) setAnswer({ for: choices, found });
      });
    return () => {
      isCurrent = false;
    };
  }, [file, choices, isZone]);
  const found = answer?.for === choices ? answer.found : undefined;
  const take = (): void => {
    if (found?.ok !== true) return;
    const { figures } = found;
    change(`Take over ${file.name}`, (draft) => {
      draft.meters.push({
        ...figures,
        id: newId('m'),
        name: `Meter ${draft.meters.length + 1}`,
        scope,
        source: file.name.slice(0, 120),
      });
    });
    onDone();
  };
  return (
    <div className="grid gap-4">
      {file.opened.kind === 'rows' ? (
        <RowChoices heading={file.opened.heading} choices={choices} onChoices={setChoices} />
      ) : (
        <p>{file.name} is a file of the open meter-reading standard: times and units stand in it.</p>
      )}
      <div className="grid gap-2 sm:grid-cols-3">
        <Labelled label="Time zone of the meter">
          <input
            className="input"
            list="time-zones"
            value={choices.timeZone}
            aria-invalid={!isZone}
            onChange={(event) => setChoices({ ...choices, timeZone: event.target.value })}
          />
          <datalist id="time-zones">
            {ZONES.map((zone) => (
              <option key={zone} value={zone} />
            ))}
          </datalist>
        </Labelled>
        <Labelled label="It measures">
          <select className="input" value={scope} onChange={(event) => setScope(event.target.value)}>
            <option value="building">the whole building</option>
            {design.partitions.map((partition) => (
              <option key={partition.id} value={partition.id}>
                {partition.name}
              </option>
            ))}
          </select>
        </Labelled>
        <label className="flex items-center gap-2 pt-5">
          <input
            type="checkbox"
            checked={choices.southern}
            onChange={(event) => setChoices({ ...choices, southern: event.target.checked })}
          />
          Southern hemisphere
        </label>
      </div>
      <div aria-live="polite">
        <Outcome found={found} />
      </div>
      <div className="flex gap-2">
        <button type="button" className="button button-main" disabled={found?.ok !== true} onClick={take}>
          Take the readings over
        </button>
        <button type="button" className="button" onClick={onDone}>
          Leave it
        </button>
      </div>
    </div>
  );
}

/** Brings a year of an interval meter in. It is read beside the page; only its summary goes into the design. */
export function MeterDialog({ isOpen, onClose }: { readonly isOpen: boolean; readonly onClose: () => void }) {
  const [file, setFile] = useState<OpenMeterFile>();
  const [message, setMessage] = useState('');
  const close = (): void => {
    file?.close();
    setFile(undefined);
    setMessage('');
    onClose();
  };
  const take = async (chosen: File): Promise<void> => {
    setMessage(`Reading ${chosen.name}…`);
    const opened = await openMeterFile(chosen);
    if (typeof opened === 'string') setMessage(opened);
    else {
      setMessage('');
      setFile(opened);
    }
  };
  return (
    <Modal title="Readings of an interval meter" isOpen={isOpen} onClose={close} wide>
      {file === undefined ? (
        <>
          <p className="mb-3">
            A CSV file with a time and a reading in each row (15, 30 or 60 minutes), or an XML file of the
            open meter-reading standard (ESPI).
          </p>
          <FilePicker
            label="Meter file"
            accept=".csv,.txt,.xml,text/csv,text/xml"
            className="button-main"
            onFile={(chosen) => void take(chosen)}
          >
            <FileClock size={15} aria-hidden="true" /> Choose a file
          </FilePicker>
          <p role="status" className="mt-2 empty:hidden">
            {message}
          </p>
        </>
      ) : (
        <Choosing file={file} onDone={close} />
      )}
    </Modal>
  );
}
