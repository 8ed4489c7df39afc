import { isInBand, loadsDroppedBy, transferTime, type WaveExpectation, type WaveFigure } from '@bastion/core';
import { useEffect, useId, useState } from 'react';
import { api, failureSentence } from '../../../api/client.ts';
import { useOpenJob } from '../../../state/job.ts';
import { StateMark } from '../../../ui/StateMark.tsx';
import { openCapture, type OpenCapture } from '../../../workers/wave.ts';
import { WavePicture } from './WavePicture.tsx';

/** What a capture of this job is held against; undefined while voltage or frequency is not known. */
function useExpectation(): WaveExpectation | undefined {
  const { installation } = useOpenJob().analysis;
  const { site, defaults, stacks } = installation;
  const { lineVoltageV, frequencyHz } = site;
  if (lineVoltageV === undefined || frequencyHz === undefined) return undefined;
  const times = stacks.flatMap((compiled) => {
    const time = transferTime(compiled);
    return time.known ? [time.value.ms] : [];
  });
  return {
    nominalV: lineVoltageV,
    nominalHz: frequencyHz,
    band: defaults.voltageTolerance.value,
    bandHz: defaults.frequencyToleranceHz.value,
    transferMs: times.length === 0 ? undefined : Math.max(...times),
  };
}

const shown = ({ value, unit }: WaveFigure): string =>
  value === undefined ? 'not found' : `${Number(value.toPrecision(4))} ${unit}`;

function bandWords({ low, high, unit }: WaveFigure): string {
  if (low !== undefined && high !== undefined)
    return `${Number(low.toPrecision(4))} to ${Number(high.toPrecision(4))} ${unit}`;
  return high === undefined ? '' : `at most ${Number(high.toPrecision(4))} ${unit}`;
}

function Figures({ capture }: { readonly capture: OpenCapture }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="What is measured">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="text-left text-quiet">
            <th scope="col">Figure</th>
            <th scope="col" className="text-right">
              Measured
            </th>
            <th scope="col" className="pl-4">
              Expected
            </th>
          </tr>
        </thead>
        {capture.figures.channels.map(({ channel, figures }) => (
          <tbody key={channel}>
            <tr>
              <th scope="rowgroup" colSpan={3} className="border-t border-rule pt-2 text-left">
                {channel}
              </th>
            </tr>
            {figures.map((figure) => {
              const inside = isInBand(figure);
              return (
                <tr key={figure.id}>
                  <td>{figure.label}</td>
                  <td className={`text-right tabular-nums ${inside === false ? 'font-bold text-over' : ''}`}>
                    {shown(figure)}
                  </td>
                  <td className="pl-4 text-quiet">
                    {inside !== undefined && <StateMark state={inside ? 'within' : 'over'} silent={inside} />}{' '}
                    {bandWords(figure)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        ))}
      </table>
    </div>
  );
}

/** What of the loads a measured gap, or a dip that they do not hold through, drops. */
function Dropped({ capture }: { readonly capture: OpenCapture }) {
  const { installation } = useOpenJob().analysis;
  const lows = capture.figures.channels.flatMap(
    ({ figures }) => figures.find(({ id }) => id === 'low')?.value ?? [],
  );
  const lowMs = Math.max(0, ...lows);
  if (lowMs === 0) return null;
  const drops = loadsDroppedBy(installation, lowMs);
  const what = `${lowMs.toFixed(1)} ms without voltage, or below 70 % of it,`;
  return drops.length === 0 ? (
    <p>Every load whose longest break is stated bears {what.replace(/,$/, '')}.</p>
  ) : (
    <div>
      <p className="font-semibold text-over">{what} drop:</p>
      <ul className="list-disc pl-5">
        {drops.map(({ what: load, longestMs }) => (
          <li key={load}>
            {load}, which bears {longestMs} ms
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Opens captures of a transfer or a start and measures them: a picture, the figures, and what they come to. */
export function CapturePanel({
  onOpened,
  keptId,
}: {
  readonly onOpened?: (capture: OpenCapture) => void;
  /** A capture that the job keeps: offered to be opened as it was. */
  readonly keptId?: number | undefined;
}) {
  const expected = useExpectation();
  const id = useId();
  const [capture, setCapture] = useState<OpenCapture>();
  const [said, setSaid] = useState('');
  useEffect(() => () => capture?.close(), [capture]);
  if (expected === undefined)
    return (
      <p className="text-unknown">Say line voltage and frequency in Site: a capture is held against them.</p>
    );
  const open = async (files: readonly File[]): Promise<void> => {
    if (files.length === 0) return;
    setSaid('Reading and measuring…');
    const opened = await openCapture(files, expected);
    if (typeof opened === 'string') {
      setSaid(opened);
      return;
    }
    setSaid('');
    setCapture(opened);
    onOpened?.(opened);
  };
  return (
    <div className="grid gap-3">
      {keptId !== undefined && capture === undefined && (
        <p>
          <button
            type="button"
            className="button"
            onClick={() =>
              void api.capture(keptId).then(
                (file) => open([file]),
                (error: unknown) => setSaid(failureSentence(error)),
              )
            }
          >
            Open the capture that was kept with the reading
          </button>
        </p>
      )}
      <p>
        <label htmlFor={id} className="block text-[13px] text-quiet">
          A .cff, a .cfg with its .dat, or a .csv of an oscilloscope
        </label>
        <input
          id={id}
          type="file"
          className="max-w-full file:mr-3 file:rounded-sm file:border file:border-edge file:bg-sheet file:px-3 file:py-1 file:font-semibold file:text-touch"
          multiple
          accept=".cff,.cfg,.dat,.csv,.txt,.tsv"
          onChange={({ target }) => void open([...(target.files ?? [])])}
        />
      </p>
      <p role="status" className="font-semibold empty:hidden">
        {said}
      </p>
      {capture !== undefined && (
        <>
          <p>
            <strong>{capture.name}</strong>
            {capture.head.title !== '' && `, ${capture.head.title}`}: {capture.head.samples} samples at{' '}
            {Number(capture.head.rateHz.toPrecision(6))} Hz
          </p>
          {capture.figures.notes.map((note) => (
            <p key={note} className="text-[13px] text-quiet">
              {note}
            </p>
          ))}
          <WavePicture key={capture.name} capture={capture} />
          <Dropped capture={capture} />
          <Figures capture={capture} />
        </>
      )}
    </div>
  );
}
