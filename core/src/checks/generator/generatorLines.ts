import type { Path } from '../../values/problem.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { judge, type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachGenerator } from '../support/generators.ts';

/** Whether the generator port wants all lines; not asked of a type without such a port, which another check refuses. */
function portDemand({ type }: CompiledStack): 'all' | 'any' | undefined {
  return !type.known || type.value.generatorPortA === 'none' ? 'any' : type.value.generatorPortLines;
}

/** A set with fewer lines than the building: which line it supplies, and what stays dark or on the battery meanwhile. */
export const generatorLines: Check<'generator.lines'> = checkOf({
  id: 'generator.lines',
  title: 'Lines the generator reaches',
  family: 'generator',
  modes: ['generator-port', 'transfer-switch'],
  sentences: {
    over: '{{subject}} supplies {{reached}} only: {{dark}} dark while it runs{{battery}}.',
    tight: '{{subject}} supplies {{reached}} only{{battery}}; nothing is dark.',
    within: '{{subject}} supplies every line of the building.',
    unknown: '{{subject}}: whether it may feed the lines it reaches is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachGenerator(generatorLines.id, context, '', ({ subject, generator, compiled, supply, reached }) => {
      const isReached = (line: string): boolean => reached.some((index) => supply.lines[index] === line);
      const partitions = new Map(
        context.installation.partitions.map((partition) => [partition.id, partition]),
      );
      const dark: string[] = [];
      const battery: string[] = [];
      const missing: Path[] = [];
      const isWhole = reached.length === supply.lines.length;
      // One that supplies every line leaves none dark.
      for (const circuit of isWhole ? [] : context.installation.circuits) {
        const partition = circuit.partitionId === undefined ? undefined : partitions.get(circuit.partitionId);
        if (partition === undefined) continue;
        const onSet = compiled.partitions.includes(partition);
        if (circuit.lines === undefined) {
          if (onSet || partition.kind === 'generator-only') missing.push(['circuits', circuit.id, 'lines']);
          continue;
        }
        if (circuit.lines.every(isReached)) continue;
        if (partition.kind === 'generator-only') dark.push(circuit.name);
        else if (onSet) battery.push(circuit.name);
      }
      const demand = isWhole || generator.connection !== 'generator-port' ? 'any' : portDemand(compiled);
      if (demand === undefined || demand === 'all')
        return judge(generatorLines.id, context, {
          subject,
          value: demand === undefined ? undefined : supply.lines.length,
          limit: demand === undefined ? undefined : reached.length,
          unit: '',
          graded: false,
          missing:
            demand === undefined && compiled.type.known
              ? [['types', compiled.type.value.id, 'generatorPortLines']]
              : [],
          data: {
            reached: reached.map((index) => supply.lines[index] ?? '').join(' and '),
            dark: 'the generator port wants all lines, so everything is',
            battery: '',
          },
          working: () => ({
            ...NO_WORKING,
            source:
              'Whether a generator may stand on fewer lines than the port has is an attribute of the inverter type.',
          }),
        });
      const names = (list: readonly string[]): string =>
        list.slice(0, 4).join(', ') + (list.length > 4 ? ` and ${list.length - 4} more` : '');
      const finding = judge(generatorLines.id, context, {
        subject,
        value: isWhole ? 0 : 1 + dark.length,
        limit: isWhole ? 0 : dark.length > 0 ? 0 : 1,
        unit: '',
        graded: false,
        missing,
        data: {
          reached: reached.map((index) => supply.lines[index] ?? '').join(' and '),
          dark: `${names(dark)} ${dark.length === 1 ? 'is' : 'are'}`,
          battery: battery.length > 0 ? `; on the battery: ${names(battery)}` : '',
        },
        working: () => ({
          ...NO_WORKING,
          source: `Lines of the set against lines of the building; ${generator.name} feeds the backed-up circuits on its lines, the inverters the rest from the battery.`,
          notes: [
            ...dark.map((name) => `Dark: ${name}.`),
            ...battery.map((name) => `On the battery: ${name}.`),
          ],
        }),
      });
      return finding.state === 'within' && !isWhole ? { ...finding, state: 'tight' } : finding;
    }),
});
