import {
  bankCircuitOf,
  type CompiledStack,
  describePlaces,
  type Drift,
  formatQuantity,
  type Known,
  SETTLED_WITHIN,
} from '@bastion/core';
import type { ChartOptions } from 'chart.js';
import { wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { Line } from 'react-chartjs-2';
import { useOpenJob } from '../../../state/job.ts';
import { type ChartInks, useChartInks } from '../../../ui/chart.ts';
import { broken } from '../../../workers/broken.ts';
import type { DriftWork } from '../../../workers/drift.worker.ts';

type Found = Known<Drift> | 'working' | 'failed';

/** Works the drift out beside the page, anew when the design changes; what runs for an older one is ended. */
function useDrift(stackId: string, isOpen: boolean): Found {
  const { design } = useOpenJob();
  const [found, setFound] = useState<{ readonly of: typeof design; readonly drift: Found }>();
  useEffect(() => {
    if (!isOpen) return;
    const worker = new Worker(new URL('../../../workers/drift.worker.ts', import.meta.url), {
      type: 'module',
    });
    let isOff = false;
    const tell = (drift: Found): void => {
      if (!isOff) setFound({ of: design, drift });
    };
    Promise.race([wrap<DriftWork>(worker).drift(design, stackId), broken(worker)]).then(tell, () =>
      tell('failed'),
    );
    return () => {
      isOff = true;
      worker.terminate();
    };
  }, [design, stackId, isOpen]);
  return found?.of === design ? found.drift : 'working';
}

/** Hours as people say them: minutes below one. */
const hours = (value: number): string =>
  value < 1 ? `${Math.round(60 * value)} min` : formatQuantity(value, 'h');

function options(inks: ChartInks, endH: number): ChartOptions<'line'> {
  const axis = (text: string) => ({
    title: { display: true, text, color: inks.quiet },
    ticks: { color: inks.quiet },
    grid: { color: inks.rule },
  });
  return {
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: { type: 'linear', min: 0, ...axis(`hours; the load goes after ${hours(endH)}`) },
      y: { ...axis('state of charge, %') },
    },
    plugins: { legend: { display: false } },
  };
}

function Course({ drift }: { readonly drift: Drift }) {
  const inks = useChartInks();
  const data = useMemo(() => {
    const count = drift.points[0]?.socs.length ?? 0;
    const final = drift.points.findLast((point) => !point.isResting)?.socs ?? [];
    const [low, high] = [Math.min(...final), Math.max(...final)];
    return {
      datasets: Array.from({ length: count }, (_, module) => {
        const isLow = final[module] === low && high > low;
        const isHigh = final[module] === high && high > low;
        return {
          label: `Module ${module + 1}`,
          data: drift.points.map((point) => ({ x: point.timeH, y: 100 * (point.socs[module] ?? 0) })),
          borderColor: isLow ? inks.over : isHigh ? inks.within : inks.quiet,
          borderWidth: isLow || isHigh ? 2 : 1,
          borderDash: isHigh ? [6, 3] : [],
          pointRadius: 0,
        };
      }),
    };
  }, [drift, inks]);
  return (
    <>
      <p>
        From full the first module is empty after <strong>{hours(drift.endH)}</strong> at the continuous load.
        The modules part by at most <strong>{formatQuantity(drift.worstSpread, 'fraction')}</strong> of charge
        (after {hours(drift.worstAtH)}) and stand {formatQuantity(drift.endSpread, 'fraction')} apart at the
        end.{' '}
        {drift.settledAfterH === undefined
          ? `They are not within ${formatQuantity(SETTLED_WITHIN, 'fraction')} again after a day of rest.`
          : drift.settledAfterH === 0
            ? `They are within ${formatQuantity(SETTLED_WITHIN, 'fraction')} at once.`
            : `At rest they are within ${formatQuantity(SETTLED_WITHIN, 'fraction')} again after ${hours(drift.settledAfterH)}.`}{' '}
        Solid line: the module that empties first; dashed: the one left fullest.
      </p>
      <div className="h-56">
        <Line
          data={data}
          options={options(inks, drift.endH)}
          aria-label="State of charge of each module over the discharge and at rest"
          role="img"
        />
      </div>
    </>
  );
}

/** How the modules' states of charge part over a full discharge and settle back. */
export function DriftPanel({ compiled }: { readonly compiled: CompiledStack }) {
  const { design } = useOpenJob();
  const [isOpen, setIsOpen] = useState(false);
  const drift = useDrift(compiled.stack.id, isOpen);
  const circuit = bankCircuitOf(compiled);
  if (circuit.known && typeof circuit.value === 'string') return null;
  return (
    <details className="mt-3" onToggle={(event) => setIsOpen(event.currentTarget.open)}>
      <summary className="font-semibold">Drift over a full discharge</summary>
      <div aria-live="polite">
        {drift === 'working' && <p className="text-quiet">Following the discharge minute by minute…</p>}
        {drift === 'failed' && <p className="text-over">It could not be worked out.</p>}
        {typeof drift === 'object' && !drift.known && (
          <p className="text-unknown">Not known yet. Missing: {describePlaces(design, drift.missing)}.</p>
        )}
        {typeof drift === 'object' && drift.known && <Course drift={drift.value} />}
      </div>
    </details>
  );
}
