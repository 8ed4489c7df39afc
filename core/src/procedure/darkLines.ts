import type { Analysis } from '../checks/analyse.ts';
import { capabilityWithout } from '../figures/capability/capability.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation } from './specs.ts';

/** Lines of the supply on which a set has an inverter; all of them while that is not known. */
export function fedLinesOf({ installation }: Analysis, compiled: CompiledStack): readonly Line[] {
  if (!installation.supply.known) return [];
  const { lines } = installation.supply.value;
  const capability = capabilityWithout(compiled);
  if (!capability.known) return lines;
  return lines.filter((_, index) => (capability.value.unitsOnLine[index] ?? 0) > 0);
}

/** Lines without an inverter stay dark in island: the test looks at that, so that nobody takes them for a fault. */
export function darkStep(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { supply } = analysis.installation;
  const fed = fedLinesOf(analysis, compiled);
  const dark = supply.known ? supply.value.lines.filter((line) => !fed.includes(line)) : [];
  if (dark.length === 0) return [];
  const names = dark.join(' and ');
  return [
    {
      id: `dark-${compiled.stack.id}`,
      section: 'island',
      title: `${compiled.stack.name}: ${names} ${dark.length === 1 ? 'is' : 'are'} dark`,
      instructions: [
        `No inverter stands on ${names}: in island ${dark.length === 1 ? 'it stays' : 'they stay'} without voltage. Measure to neutral and to earth.`,
      ],
      cautions: ['Dead by design is not proved dead: use a proven tester.'],
      readings: dark.map((line) => confirmation(`dark-${line}`, `${line} without voltage`)),
    },
  ];
}
