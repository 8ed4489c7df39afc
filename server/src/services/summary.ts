import {
  analyse,
  type Design,
  modesOf,
  SAMPLE_TYPES,
  sentenceOf,
  type StageKey,
  STAGES,
  type State,
  STATES,
} from '@bastion/core';
import { z } from 'zod';

const summarySchema = z.object({
  worst: z.string(),
  counts: z.object({ over: z.number(), tight: z.number(), unknown: z.number(), within: z.number() }),
  stage: z.string(),
});
export type Summary = z.infer<typeof summarySchema>;

/** The first stage, in the order of the work, that still has nothing in it. */
function stageOf(design: Design): string {
  const key: StageKey =
    design.site.supply === undefined
      ? 'site'
      : design.circuits.length === 0
        ? 'loads'
        : design.circuits.some((circuit) => circuit.partitionId === undefined)
          ? 'partitions'
          : design.stacks.length === 0
            ? 'stack'
            : design.earthPoints.length === 0
              ? 'wiring'
              : 'limits';
  return STAGES.find((stage) => stage.key === key)?.title ?? '';
}

/** Where a job stands, for the job list. Made once per revision. */
export function summarise(design: Design): Summary {
  const { installation, findings } = analyse(design, SAMPLE_TYPES);
  const count = (state: State): number => findings.filter((finding) => finding.state === state).length;
  // The loss of a unit is a case of its own; what fails with all units present is told first.
  const lossModes = new Set(
    modesOf(installation)
      .filter((mode) => mode.kind === 'unit-lost')
      .map((mode) => mode.id),
  );
  const worst =
    findings.find((finding) => finding.state === 'over' && !lossModes.has(finding.mode)) ?? findings[0];
  const modeLabel = modesOf(installation).find((mode) => mode.id === worst?.mode)?.label ?? '';
  const [over, unknown, tight, within] = STATES.map(count);
  return {
    worst:
      worst === undefined || worst.state === 'within'
        ? 'Nothing over, tight or unknown.'
        : `${modeLabel}: ${sentenceOf(design, worst)}`,
    counts: { over: over ?? 0, tight: tight ?? 0, unknown: unknown ?? 0, within: within ?? 0 },
    stage: stageOf(design),
  };
}

export const readSummary = (text: string): Summary => summarySchema.parse(JSON.parse(text));
