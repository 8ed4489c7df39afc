import {
  analyse,
  analysisCauses,
  type Design,
  SAMPLE_TYPES,
  type StageKey,
  STAGES,
  type State,
  verdictOf,
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
  const analysis = analyse(design, SAMPLE_TYPES);
  const causes = analysisCauses(analysis);
  const roots = causes.filter((cause) => cause.follows === undefined && !cause.accepted);
  const count = (state: State): number => roots.filter((cause) => cause.state === state).length;
  const isBare = analysis.findings.length === 0;
  return {
    worst: isBare ? 'Nothing to check yet.' : verdictOf(analysis.installation, causes),
    counts: {
      over: count('over'),
      tight: count('tight'),
      unknown: count('unknown'),
      within: analysis.findings.filter((finding) => finding.state === 'within').length,
    },
    stage: stageOf(design),
  };
}

/** The stored words of a summary, as the job list is given them. */
export function readSummary(text: string): Omit<Summary, 'worst'> & { readonly verdict: string } {
  const { worst: verdict, ...rest } = summarySchema.parse(JSON.parse(text));
  return { ...rest, verdict };
}
