import { leadSizeWords, rangeWords } from '../../codes/leadSizes.ts';
import type { Network, Port, Run } from '../../installation/network.ts';
import { remember } from '../../values/remember.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { labelOf, onNetwork, refsOf, troubleOrOne, WHOLE } from '../support/network.ts';

const portsById = remember((network: Network) => new Map(network.ports.map((port) => [port.id, port])));

/** The end of a conductor that does not fit, or the first that is looked at: its size over what the terminal takes. */
function worstEnd(
  run: Run,
  ends: readonly Port[],
): { port: Port; areaMm2: number; limit: number } | undefined {
  if (!run.areaMm2.known) return undefined;
  const areaMm2 = run.areaMm2.value;
  let found: { port: Port; areaMm2: number; limit: number } | undefined;
  for (const port of ends) {
    if (!port.takes.known) continue;
    const { minMm2, maxMm2 } = port.takes.value;
    const limit = areaMm2 < minMm2 ? minMm2 : maxMm2;
    const fits = areaMm2 >= minMm2 && areaMm2 <= maxMm2;
    if (found === undefined || !fits) found = { port, areaMm2, limit };
    if (!fits) return found;
  }
  return found;
}

/** A conductor whose size is stated against what the terminals at its ends take. What nobody stated is not asked for here. */
export const wiringTerminals: Check<'wiring.terminals'> = checkOf({
  id: 'wiring.terminals',
  title: 'Conductors in their terminals',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} is {{size}}; the {{port}} takes {{range}}.',
    tight: '{{subject}} is {{size}}; the {{port}} takes {{range}}.',
    within: '{{subject}} fits the terminals at its ends.',
    unknown: '{{subject}}: whether it fits is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringTerminals.id, context, ({ network }) =>
      troubleOrOne(
        network.runs.flatMap((run) => {
          const ports = [run.a, run.b].flatMap((id) => portsById(network).get(id) ?? []);
          const end = worstEnd(run, ports);
          if (end === undefined || !end.port.takes.known) return [];
          const { port, areaMm2, limit } = end;
          const { minMm2, maxMm2 } = end.port.takes.value;
          const parts = ports.map(({ partId }) => partId);
          return [
            judge(wiringTerminals.id, context, {
              subject: {
                kind: 'part',
                id: run.id,
                label: `The conductor from ${parts.map((id) => labelOf(network, id)).join(' to ')}`,
                about: refsOf(network, parts),
              },
              value: areaMm2,
              limit,
              unit: 'mm²',
              bound: areaMm2 < minMm2 ? 'at-least' : 'at-most',
              graded: false,
              data: {
                size: leadSizeWords(areaMm2),
                port: `${port.label} of ${labelOf(network, port.partId)}`,
                range: rangeWords(context.installation.site.codeProfile ?? 'metric', minMm2, maxMm2),
              },
              working: () => ({
                ...NO_WORKING,
                source: 'Terminal data of the type.',
                inputs: [{ label: 'Size', path: [...run.from, 'areaMm2'], value: areaMm2, unit: 'mm²' }],
              }),
            }),
          ];
        }),
        { ...WHOLE, label: 'Every conductor whose size and terminals are stated' },
      ),
    ),
});
