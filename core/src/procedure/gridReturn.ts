import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { fedLinesOf } from './darkLines.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation, missingWords, voltageSpec } from './specs.ts';

/** Closing the grid again: the set must watch it before it reconnects, and nothing may drop. */
export function returnStep(analysis: Analysis, compiled: CompiledStack): ProcedureStep {
  const lines = fedLinesOf(analysis, compiled);
  const { installation } = analysis;
  const delayS = compiled.type.known
    ? (compiled.type.value.reconnectDelayS ?? installation.defaults.reconnectDelayS.value)
    : undefined;
  return {
    id: `return-${compiled.stack.id}`,
    section: 'return',
    title: `${compiled.stack.name}: grid return`,
    instructions: [
      'With a light load on the backup output, close the grid isolator and start a stopwatch.',
      'Stop it when the units show on-grid. Nothing on the backup output should drop.',
    ],
    cautions: ['Do not force the transfer by hand: two sources that are not in step must never meet.'],
    readings: [
      {
        id: 'reconnect-delay',
        label: 'Time until reconnected',
        unit: 's',
        kind: 'number',
        instrument: 'stopwatch',
        ...(delayS === undefined ? {} : { nominal: delayS, expected: { low: delayS } }),
        missing: compiled.type.known ? [] : missingWords(installation, compiled.type.missing),
      },
      ...lines.map((line) => voltageSpec(installation, line)),
      confirmation('nothing-dropped', 'Nothing on the backup output dropped'),
    ],
    abortText: 'Open the grid isolator at once if breakers trip or a unit reports a synchronising fault.',
  };
}
