import { transferTime } from '../figures/capability/transferTime.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { fedLinesOf } from './darkLines.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { islandFrequencySpec, missingWords, voltageSpec } from './specs.ts';

function transferSpec({ installation }: Analysis, compiled: CompiledStack): ReadingSpec {
  const base = {
    id: 'transfer',
    label: 'Transfer time',
    unit: 'ms',
    kind: 'number' as const,
    instrument: 'oscilloscope or recorder',
  };
  const time = transferTime(compiled);
  if (!time.known) return { ...base, missing: missingWords(installation, time.missing) };
  const { ms } = time.value;
  return { ...base, nominal: ms, expected: { low: 0, high: ms }, missing: [] };
}

/** Opening the grid with nothing on the backup output. */
export function islandStep(analysis: Analysis, compiled: CompiledStack): ProcedureStep {
  const { installation } = analysis;
  const lines = fedLinesOf(analysis, compiled);
  const hasGrid = installation.site.grid !== 'none';
  const limitV = installation.defaults.neutralEarthLimitV.value;
  return {
    id: `island-${compiled.stack.id}`,
    section: 'island',
    title: `${compiled.stack.name}: ${hasGrid ? 'island' : 'running'} with no load`,
    instructions: hasGrid
      ? [
          'All backup circuits off. Units running on grid, battery above reserve, no alarm shown.',
          'Open the grid isolator and lock it. The backup output should come up by itself.',
        ]
      : [
          'All backup circuits off, battery above reserve, no alarm shown.',
          'Start the set from its battery alone. The backup output should come up by itself.',
        ],
    cautions: [
      hasGrid
        ? 'The backup output is live with the grid isolator open. Treat every backed-up circuit as live.'
        : 'The backup output is live as soon as the set runs. Treat every backed-up circuit as live.',
    ],
    readings: [
      // Without a grid nothing is transferred.
      ...(hasGrid ? [transferSpec(analysis, compiled)] : []),
      ...lines.map((line) => voltageSpec(installation, line)),
      islandFrequencySpec(installation, compiled),
      {
        id: 'neutral-earth',
        label: 'Voltage neutral to earth',
        unit: 'V',
        kind: 'number',
        instrument: 'true-RMS voltmeter',
        nominal: 0,
        expected: { low: 0, high: limitV },
        missing: [],
      },
    ],
    abortText: `Stop and close down if a line is more than ${installation.defaults.abortVoltageTolerance.value * 100} % from its voltage, or anything smells, smokes or trips.`,
  };
}
