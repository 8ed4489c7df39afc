import { hasStatedCharge } from '../../figures/bank/bankCircuit.ts';
import { holdV, worstJoin } from '../../figures/bank/joining.ts';
import { counted, formatQuantity } from '../../words/quantity.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachSharingBank } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';

/** Current of a module when it is closed onto all that are joined already, solved on the network of the bank at rest. */
export const bankJoin: Check<'bank.join'> = checkOf({
  id: 'bank.join',
  title: 'Current when modules are joined',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: closing module {{module}} onto {{onto}} drives {{value}}, as it stands {{apart}} them; {{limit}} may flow into it. Bring it to within {{hold}} of the others first, by itself.',
    tight:
      '{{subject}}: closing module {{module}} onto {{onto}} drives {{value}} of {{limit}}. Better within {{hold}} of the others first.',
    within: '{{subject}}: closing module {{module}} onto {{onto}} drives {{value}} of {{limit}}.',
    unknown: '{{subject}}: the current on joining is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankJoin.id, context, 'A', 'steady', ({ circuit, compiled }) => {
      const joiningV = context.installation.defaults.joiningV.value;
      const step = hasStatedCharge(compiled.stack) ? worstJoin(circuit, joiningV) : undefined;
      if (step === undefined) return undefined;
      const module = circuit.modules.find(({ number }) => number === step.moduleNumber);
      const path = ['stacks', compiled.stack.id, 'bank', 'modules'];
      const apart = formatQuantity(Math.abs(step.differenceV), 'V');
      return {
        subject: bankSubject(compiled),
        value: step.currentA,
        limit: step.limitA,
        unit: 'A',
        data: {
          module: step.moduleNumber,
          onto: `the ${counted(step.onto, 'module')} joined before it`,
          apart: `${apart} ${step.differenceV < 0 ? 'below' : 'above'}`,
          hold: formatQuantity(holdV(joiningV, module?.type.nominalV ?? 48), 'V'),
        },
        working: () => ({
          ...NO_WORKING,
          inputs: circuit.modules.map(({ id, number, emfV }) => ({
            label: `Resting voltage of module ${number}, from its state of charge`,
            path: [...path, id, 'stateOfCharge'],
            value: emfV,
            unit: 'V',
          })),
          source:
            'Each module in turn is closed onto those that are joined already, nothing drawn: nodal analysis of resting voltages, inner resistances, leads and bars.',
          notes: [
            `Module ${step.moduleNumber} stands ${apart} ${step.differenceV < 0 ? 'below' : 'above'} the others.`,
          ],
        }),
      };
    }),
});
