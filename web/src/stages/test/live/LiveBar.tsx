import { type MapRow, messagesOfBits, readRegisterMap } from '@bastion/core';
import { PlugZap } from 'lucide-react';
import Papa from 'papaparse';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { api } from '../../../api/client.ts';
import { useKept } from '../../../ui/useKept.ts';
import type { Live, LiveStatus } from './useLive.ts';

const half = z.object({ host: z.string(), port: z.string(), unit: z.string(), seconds: z.string() });
const FIRST = { host: '127.0.0.1', port: '502', unit: '1', seconds: '1' };

const STATUS_WORDS: Readonly<Record<LiveStatus, string>> = {
  off: 'Not joined',
  joining: 'Joining',
  live: 'Live',
  lost: 'Link lost',
};

interface LiveBarProps {
  readonly jobId: number;
  readonly live: Live;
}

/** Where the readings come from while they are read live: a device by its address, by our register map or one of its own. */
export function LiveBar({ jobId, live }: LiveBarProps) {
  const { status, sentence, device } = live;
  if (device === undefined && status === 'off')
    return (
      <details className="sheet p-3" open={sentence !== ''}>
        <summary className="cursor-pointer">
          <PlugZap size={18} className="mr-2 inline" aria-hidden="true" />
          Read live from a device
        </summary>
        <section className="grid gap-2 pt-2" aria-label="Live readings">
          <p className="text-over empty:hidden">{sentence}</p>
          <DeviceForm jobId={jobId} live={live} />
        </section>
      </details>
    );
  return (
    <section className="sheet flex flex-wrap items-center gap-3 p-3" aria-label="Live readings">
      <PlugZap size={18} aria-hidden="true" />
      <strong className={status === 'lost' ? 'text-over' : ''} role="status">
        {STATUS_WORDS[status]}
      </strong>
      {device !== undefined && (
        <span>
          {device.host}:{device.port}, unit {device.unitId}
        </span>
      )}
      <span className={`flex-1 ${status === 'lost' ? 'text-over' : 'text-quiet'}`}>{sentence}</span>
      <Messages jobId={jobId} figures={live.figures} />
      {device !== undefined && (
        <button type="button" className="button" onClick={live.leave}>
          Leave it
        </button>
      )}
    </section>
  );
}

/** What the sets of the device report, each with the way to what may be wrong. */
function Messages({ jobId, figures }: { readonly jobId: number; readonly figures: Live['figures'] }) {
  const told = Object.entries(figures).flatMap(([key, bits]) =>
    /^set\.\d+\.messages$/.test(key) && bits !== null ? messagesOfBits(bits) : [],
  );
  if (told.length === 0) return null;
  return (
    <p className="w-full">
      Reports:{' '}
      {told.map(({ id, words, symptom }, index) => (
        <span key={id}>
          {index > 0 && '; '}
          {symptom === undefined ? (
            words
          ) : (
            <Link to={`/jobs/${jobId}/test/faults?symptom=${symptom}`}>{words}</Link>
          )}
        </span>
      ))}
    </p>
  );
}

function DeviceForm({ jobId, live }: LiveBarProps) {
  const [typed, setTyped] = useKept(`live.${jobId}`, half, FIRST);
  const [rows, setRows] = useState<readonly MapRow[]>();
  const [problem, setProblem] = useState('');
  const join = (): void => {
    const [port, unitId, seconds] = [Number(typed.port), Number(typed.unit), Number(typed.seconds)];
    const wrong = [
      ...(Number.isInteger(port) && port > 0 && port < 65536 ? [] : [`"${typed.port}" is no port`]),
      ...(Number.isInteger(unitId) && unitId >= 0 && unitId < 256
        ? []
        : [`"${typed.unit}" is no unit identifier`]),
      ...(seconds >= 0.2 && seconds <= 60 ? [] : ['it is read every 0.2 to 60 s']),
      ...(typed.host.trim() === '' ? ['the address is empty'] : []),
    ];
    setProblem(wrong.length === 0 ? '' : `Not joined: ${wrong.join('; ')}.`);
    if (wrong.length > 0) return;
    live.join({
      host: typed.host.trim(),
      port,
      unitId,
      everyMs: Math.round(seconds * 1000),
      ...(rows === undefined ? {} : { rows: [...rows] }),
    });
  };
  const fromSite = (): void => {
    api.site(jobId).then(
      ({ host, port, unitId }) => {
        const next = { ...typed, host, port: String(port), unit: String(unitId) };
        setTyped(next);
        setRows(undefined);
        setProblem('');
        live.join({ host, port, unitId, everyMs: 1000 });
      },
      () => setProblem('No simulated site is open for this job: open it under Simulated site first.'),
    );
  };
  const takeMap = async (file: File): Promise<void> => {
    const { data } = Papa.parse<string[]>(await file.text(), { skipEmptyLines: false });
    const read = readRegisterMap(data);
    setRows(read.ok ? read.rows : undefined);
    setProblem(read.ok ? '' : `${file.name} was not taken. ${read.problems.slice(0, 3).join(' ')}`);
  };
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        join();
      }}
    >
      <div className="flex flex-wrap items-end gap-2">
        <Cell label="Address" value={typed.host} wide onType={(host) => setTyped({ ...typed, host })} />
        <Cell label="Port" value={typed.port} onType={(port) => setTyped({ ...typed, port })} />
        <Cell label="Unit" value={typed.unit} onType={(unit) => setTyped({ ...typed, unit })} />
        <Cell label="Every, s" value={typed.seconds} onType={(seconds) => setTyped({ ...typed, seconds })} />
        <label className="button cursor-pointer">
          {rows === undefined ? 'A register map of its own' : `Its own map, ${rows.length} rows`}
          <input
            type="file"
            accept=".csv,text/csv"
            className="sr-only"
            onChange={({ target }) => {
              const [file] = target.files ?? [];
              if (file !== undefined) void takeMap(file);
            }}
          />
        </label>
        <button type="submit" className="button">
          Join
        </button>
        <button type="button" className="button" onClick={fromSite}>
          Join the simulated site
        </button>
      </div>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {problem}
      </p>
    </form>
  );
}

function Cell({
  label,
  value,
  wide = false,
  onType,
}: {
  readonly label: string;
  readonly value: string;
  readonly wide?: boolean;
  readonly onType: (value: string) => void;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        className={`input ${wide ? 'w-36' : 'w-20'}`}
        autoComplete="off"
        value={value}
        onChange={({ target }) => onType(target.value)}
      />
    </div>
  );
}
