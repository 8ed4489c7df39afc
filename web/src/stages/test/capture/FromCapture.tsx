import type { ProcedureStep, ReadingSpec } from '@bastion/core';
import { Activity } from 'lucide-react';
import { useRef, useState } from 'react';
import { useOpenJob } from '../../../state/job.ts';
import { keepCapture } from './keepCapture.ts';
import type { OpenCapture } from '../../../workers/wave.ts';
import { Modal } from '../../../ui/Modal.tsx';
import type { OnRead } from '../runView.ts';
import { CapturePanel } from './CapturePanel.tsx';

/** Which figure of a capture answers a reading, by its unit: a gap in ms, a frequency in Hz, a settled voltage in V of its line. */
const ANSWERS: Readonly<Record<string, string>> = { ms: 'gap', Hz: 'frequency', V: 'settled' };

interface Offer {
  readonly spec: ReadingSpec;
  readonly value: number;
}

function offersOf(step: ProcedureStep, { figures }: OpenCapture): Offer[] {
  return step.readings.flatMap((spec): Offer[] => {
    const wanted = ANSWERS[spec.unit];
    if (wanted === undefined || spec.kind === 'confirmation') return [];
    const values = figures.channels.flatMap(({ channel, figures: some }) => {
      const value = some.find(({ id }) => id === wanted)?.value;
      return value === undefined || some.every(({ id }) => id !== 'gap') ? [] : [{ channel, value }];
    });
    const line = /L[123]/u.exec(spec.label)?.[0];
    const own = line === undefined ? undefined : values.find(({ channel }) => channel.includes(line));
    // Without a line of its own the worst gap counts; a voltage needs its line, or a capture of one channel.
    const one =
      own ??
      (wanted === 'V' || (line !== undefined && values.length > 1) ? undefined : worst(values, wanted));
    return one === undefined ? [] : [{ spec, value: Number(one.value.toPrecision(5)) }];
  });
}

const worst = (
  values: readonly { readonly channel: string; readonly value: number }[],
  wanted: string,
): { readonly value: number } | undefined =>
  wanted === 'gap' ? [...values].sort((a, b) => b.value - a.value)[0] : values[0];

/** Readings of a step from a capture: measured, offered, and taken one by one by a person. */
export function FromCapture({ step, onRead }: { readonly step: ProcedureStep; readonly onRead: OnRead }) {
  const [isOpen, setIsOpen] = useState(false);
  const [capture, setCapture] = useState<OpenCapture>();
  const [said, setSaid] = useState('');
  const { id: jobId } = useOpenJob();
  const kept = useRef(new Map<OpenCapture, number>());
  const take = async ({ spec, value }: Offer): Promise<void> => {
    if (capture === undefined) return;
    const id = kept.current.get(capture) ?? (await keepCapture(jobId, capture));
    if (typeof id === 'number') kept.current.set(capture, id);
    const problem = await onRead(spec.id, value, {
      source: `From the capture ${capture.name}`.slice(0, 200),
      ...(typeof id === 'number' ? { captureId: id } : {}),
    });
    setSaid(problem ?? `${spec.label}: taken.${typeof id === 'number' ? '' : ` ${id}`}`);
  };
  if (!step.readings.some(({ unit, kind }) => unit === 'ms' && kind !== 'confirmation')) return null;
  const offers = capture === undefined ? [] : offersOf(step, capture);
  return (
    <p className="mt-2">
      <button type="button" className="button" onClick={() => setIsOpen(true)}>
        <Activity size={16} aria-hidden="true" /> Readings from a capture
      </button>
      <Modal title={`Capture for: ${step.title}`} isOpen={isOpen} onClose={() => setIsOpen(false)} wide>
        {offers.length > 0 && (
          <ul className="mb-3 grid gap-1">
            {offers.map(({ spec, value }) => (
              <li key={spec.id} className="flex flex-wrap items-center gap-3">
                <span>
                  {spec.label}: <strong>{`${value} ${spec.unit}`}</strong>
                </span>
                <button type="button" className="button" onClick={() => void take({ spec, value })}>
                  Take it
                </button>
              </li>
            ))}
          </ul>
        )}
        <p role="status" className="empty:hidden">
          {said}
        </p>
        <CapturePanel onOpened={setCapture} />
      </Modal>
    </p>
  );
}
