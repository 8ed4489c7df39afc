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
import { SUMMARY, type Summary } from '../stored/kinds.ts';

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

const NONE = { over: 0, tight: 0, unknown: 0, within: 0 };

/** What stands in the list for a job that takes too long to be summed up. */
export const TOO_LARGE: Summary = {
  worst: 'This design takes too long to be summed up here. Open it to see its limits.',
  counts: NONE,
  stage: 'Limits',
};

/** The stored words of a summary, as the job list is given them. One that cannot be read is told, and takes no other with it. */
export function readSummary(text: string): Omit<Summary, 'worst'> & { readonly verdict: string } {
  const read = SUMMARY.read(text);
  const { worst: verdict, ...rest } = read.ok
    ? read.value
    : {
        worst: 'The summary of this job cannot be read. Open the job to see its limits.',
        counts: NONE,
        stage: 'Limits',
      };
  return { ...rest, verdict };
}
