import { type Installation, liveFigure, liveSource, type ProcedureStep } from '@bastion/core';
import type { LiveProposal } from './LiveFigure.tsx';
import type { Live } from './useLive.ts';

/** What a device says now of the readings of a step: of those that it can know, and only while it is heard. */
export function proposalsOf(
  installation: Installation,
  step: ProcedureStep,
  { status, figures, trends }: Pick<Live, 'status' | 'figures' | 'trends'>,
): ReadonlyMap<string, LiveProposal> {
  const found = new Map<string, LiveProposal>();
  if (status !== 'live') return found;
  for (const spec of step.readings) {
    const source = liveSource(installation, step, spec);
    const value = source === undefined ? undefined : liveFigure(source, figures);
    if (source === undefined || value === undefined) continue;
    const points = (trends.get(source.key) ?? []).map((point) => ({
      ...point,
      value: point.value * source.factor,
    }));
    found.set(spec.id, { value, points });
  }
  return found;
}
