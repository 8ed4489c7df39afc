import { type Circuit, type Item, stepsOfStart } from '@bastion/core';
import { useOpenJob } from '../../state/job.ts';

const WIDTH = 44;
const HEIGHT = 18;
/** The trace shows a second before and after; longer starts are cut at the edge. */
const SHOWN_S = 4;
const TALLEST = 8;

/** A start in miniature: running load as the floor, the start as the step above it. Nothing where it does not start. */
export function StartTrace({ circuit, item }: { readonly circuit: Circuit; readonly item: Item }) {
  const { supply } = useOpenJob().analysis.installation;
  if (!supply.known) return null;
  const steps = stepsOfStart(circuit, item, supply.value, []);
  if (steps === undefined)
    return (
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label="start not known">
        <line
          x1={2}
          x2={WIDTH - 2}
          y1={HEIGHT - 5}
          y2={HEIGHT - 5}
          stroke="var(--unknown)"
          strokeDasharray="3 3"
          strokeWidth={1.5}
        />
      </svg>
    );
  const yOf = (multiple: number): number =>
    HEIGHT - 2 - ((HEIGHT - 4) * Math.min(multiple, TALLEST)) / TALLEST;
  const xOf = (seconds: number): number => 6 + ((WIDTH - 10) * Math.min(seconds, SHOWN_S)) / SHOWN_S;
  let atS = 0;
  const points = [`0,${yOf(0)}`, `${xOf(0)},${yOf(0)}`];
  for (const step of steps) {
    points.push(`${xOf(atS)},${yOf(step.multiple)}`);
    atS += step.durationS;
    points.push(`${Math.max(xOf(atS), xOf(0) + 2)},${yOf(step.multiple)}`);
  }
  points.push(`${Math.max(xOf(atS), xOf(0) + 2)},${yOf(1)}`, `${WIDTH},${yOf(1)}`);
  const most = Math.max(1, ...steps.map((step) => step.multiple));
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={steps.length === 0 ? 'no start surge' : `starts at ${most} times for ${atS} s`}
    >
      <polyline points={points.join(' ')} fill="none" stroke="var(--ink)" strokeWidth={1.3} />
    </svg>
  );
}
