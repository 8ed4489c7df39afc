import { filterLeakageMa, LEAKAGE_SHARE } from '../../figures/protection/faultProtection.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Part } from '../../installation/network.ts';
import { all, type Known, mapKnown } from '../../values/known.ts';
import { type Check, judge, NO_WORKING, unknownFinding, checkOf } from '../check.ts';
import type { Found } from '../finding.ts';
import { isResidual } from '../support/devices.ts';
import { onNetwork, partSubject, troubleOrOne, WHOLE } from '../support/network.ts';

/** On the grid side of a set the leakage of its filters returns through every device there. */
const GRID_SIDE: ReadonlySet<Part['role']> = new Set(['service-main', 'grid-isolator', 'unit-grid']);

/** The leakage that goes through a device: of one unit, of its set, or at the service of all sets. */
function leakageAt(part: Part, stacks: readonly CompiledStack[]): Known<number> {
  const sets =
    part.role === 'service-main' ? stacks : stacks.filter(({ stack }) => stack.id === part.stackId);
  const each = all(Object.fromEntries(sets.map((one) => [one.stack.id, filterLeakageMa(one)])));
  return mapKnown(each, (found) => {
    const sum = Object.values(found).reduce((a, b) => a + b, 0);
    const [set] = sets;
    return part.role === 'unit-grid' && set !== undefined ? sum / set.stack.units.length : sum;
  });
}

/** Leakage of the filters of inverters through residual-current devices: what stands there must not trip by itself. */
export const wiringLeakage: Check<'wiring.leakage'> = checkOf({
  id: 'wiring.leakage',
  title: 'Leakage through residual-current devices',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}}: the filters of the inverters leak {{value}} through it, and it may trip from {{limit}} on.',
    tight:
      '{{subject}}: the filters of the inverters leak {{value}} through it of {{limit}}: {{margin}} left.',
    within: '{{subject}}: the filters of the inverters leak {{value}} of {{limit}}.',
    unknown: '{{subject}}: the leakage through it is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    onNetwork(wiringLeakage.id, context, ({ network }) => {
      const { stacks } = context.installation;
      const findings = network.parts.flatMap((part): Found[] => {
        const residualMa = part.device?.residualMa;
        if (part.device === undefined || residualMa === undefined || !isResidual(part.device)) return [];
        const isGridSide = GRID_SIDE.has(part.role);
        if ((!isGridSide && part.role !== 'unit-output') || stacks.length === 0) return [];
        const subject = partSubject(network, part);
        const leakage = leakageAt(
          part.role === 'unit-output' ? { ...part, role: 'unit-grid' } : part,
          stacks,
        );
        if (!leakage.known)
          return [unknownFinding(wiringLeakage.id, context, subject, 'mA', leakage.missing)];
        return [
          judge(wiringLeakage.id, context, {
            subject,
            value: leakage.value,
            limit: LEAKAGE_SHARE * residualMa,
            unit: 'mA',
            // Behind the output it sees them only where neutral and earth are joined beyond it.
            ...(isGridSide ? {} : { worst: 'tight' as const }),
            working: () => ({
              ...NO_WORKING,
              inputs: [
                {
                  label: 'Rated residual current',
                  path: ['types', part.deviceTypeId ?? '', 'residualMa'],
                  value: residualMa,
                  unit: 'mA',
                },
              ],
              source: `Sum of the filter leakage of the units behind it, at most ${LEAKAGE_SHARE * 100} % of ${residualMa} mA.`,
            }),
          }),
        ];
      });
      return troubleOrOne(findings, { ...WHOLE, label: 'Every residual-current device at the inverters' });
    }),
});
