import { isSameSubject } from '../checks/finding.ts';
import { lineSubject } from '../checks/support/subjects.ts';
import { statedOf } from '../installation/stated.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import { surgeLargestStart } from '../checks/surge/surgeLargestStart.ts';
import { sentenceOf } from '../checks/sentence.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation, voltageSpec } from './specs.ts';

/** The hardest start of each line, made on purpose with the expected load running. */
export function startSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { installation, findings } = analysis;
  if (!installation.supply.known) return [];
  return installation.supply.value.lines.flatMap((line) => {
    const finding = findings.find(
      (one) =>
        one.check === surgeLargestStart.id &&
        one.mode === 'island' &&
        isSameSubject(one.subject, lineSubject(compiled, line)),
    );
    return finding === undefined ? [] : [startStep(analysis, compiled, line, finding)];
  });
}

function startStep(
  { installation }: Analysis,
  compiled: CompiledStack,
  line: 'L1' | 'L2' | 'L3',
  finding: RegisteredFinding,
): ProcedureStep {
  const { defaults } = installation;
  const voltage = voltageSpec(installation, line);
  const lowest = voltage.nominal === undefined ? undefined : voltage.nominal * (1 - defaults.startDip.value);
  const { abort: _steady, ...spec } = voltage;
  const label = String(finding.data.label ?? 'the largest load');
  return {
    id: `start-${compiled.stack.id}-${line}`,
    section: 'start',
    title: `${compiled.stack.name} ${line}: largest start`,
    instructions: [
      `Run the expected load of ${line}, then start ${label}.`,
      sentenceOf(statedOf(installation), finding),
      'Record the lowest voltage with a recorder or a meter that holds its minimum.',
    ],
    cautions: [
      ...(finding.state === 'over'
        ? [
            'The model says that this start is over the limit. Do not make it unless the licensed person has accepted it; expect the set to trip.',
          ]
        : []),
      'Keep clear of the driven machine: it may start, stall and start again.',
    ],
    readings: [
      confirmation('started', `${label} came up without a trip`),
      {
        ...spec,
        id: 'lowest-voltage',
        label: `Lowest voltage ${line} during the start`,
        ...(lowest === undefined ? {} : { expected: { low: lowest } }),
      },
    ],
    abortText: 'Stop if the motor hums without turning for more than two seconds, or the set alarms.',
  };
}
