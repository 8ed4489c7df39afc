import type { Analysis } from '../checks/analyse.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { frequencySpec, missingWords, voltageSpec } from './specs.ts';

function transferSpec({ installation }: Analysis, compiled: CompiledStack): ReadingSpec {
  const base = {
    id: 'transfer',
    label: 'Transfer time',
    unit: 'ms',
    kind: 'number' as const,
    instrument: 'oscilloscope or recorder',
  };
  const transferMs = compiled.type.known ? compiled.type.value.transferMs : undefined;
  if (transferMs === undefined) {
    const places = compiled.type.known
      ? [['types', compiled.type.value.id, 'transferMs']]
      : compiled.type.missing;
    return { ...base, missing: missingWords(installation, places) };
  }
  return { ...base, nominal: transferMs, expected: { low: 0, high: transferMs }, missing: [] };
}

/** Opening the grid with nothing on the backup output. */
export function islandStep(analysis: Analysis, compiled: CompiledStack): ProcedureStep {
  const { installation } = analysis;
  const lines = installation.supply.known ? installation.supply.value.lines : [];
  const limitV = installation.defaults.neutralEarthLimitV.value;
  return {
    id: `island-${compiled.stack.id}`,
    section: 'island',
    title: `${compiled.stack.name}: island with no load`,
    instructions: [
      'All backup circuits off. Units running on grid, battery above reserve, no alarm shown.',
      'Open the grid isolator and lock it. The backup output should come up by itself.',
    ],
    cautions: [
      'The backup output is live with the grid isolator open. Treat every backed-up circuit as live.',
    ],
    readings: [
      transferSpec(analysis, compiled),
      ...lines.map((line) => voltageSpec(installation, line)),
      frequencySpec(installation),
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
