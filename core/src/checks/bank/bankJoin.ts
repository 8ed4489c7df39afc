import type { CircuitModule } from '../../figures/bank/bankCircuit.ts';
import { type Check, NO_WORKING } from '../check.ts';
import { eachSharingBank } from '../support/sharing.ts';
import { bankSubject } from '../support/subjects.ts';
import { symbol } from '../support/workings.ts';

interface Pair {
  readonly high: CircuitModule;
  readonly low: CircuitModule;
  readonly currentA: number;
}

/** The pair of modules between which the largest current flows when they are closed onto each other. */
function worstPair(modules: readonly CircuitModule[]): Pair | undefined {
  let worst: Pair | undefined;
  for (const high of modules) {
    for (const low of modules) {
      if (high === low || high.emfV < low.emfV) continue;
      const ohm = high.ohm + low.ohm;
      const currentA = ohm > 0 ? (high.emfV - low.emfV) / ohm : Infinity;
      if (worst === undefined || currentA > worst.currentA) worst = { high, low, currentA };
    }
  }
  return worst;
}

/** Current when a module at one voltage is closed onto a module at another: I = ΔV / (R_a + R_b), leads included. */
export const bankJoin: Check<'bank.join'> = {
  id: 'bank.join',
  title: 'Current when modules are joined',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: joining module {{high}} to module {{low}} drives {{value}}; {{limit}} may flow into a module. Charge or discharge them to within {{hold}} of each other first, one by one.',
    tight:
      '{{subject}}: joining module {{high}} to module {{low}} drives {{value}} of {{limit}}. Better within {{hold}} of each other first.',
    within: '{{subject}}: joining module {{high}} to module {{low}} drives {{value}} of {{limit}}.',
    unknown: '{{subject}}: the current on joining is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSharingBank(bankJoin.id, context, 'A', 'steady', ({ circuit, compiled }) => {
      const stated = compiled.stack.bank;
      const isStated =
        typeof stated === 'object' && stated.modules.some((module) => module.stateOfCharge !== undefined);
      const pair = isStated ? worstPair(circuit.modules) : undefined;
      if (pair === undefined) return undefined;
      const { high, low, currentA } = pair;
      const path = ['stacks', compiled.stack.id, 'bank', 'modules'];
      return {
        subject: bankSubject(compiled),
        value: currentA,
        limit: low.type.chargeA,
        unit: 'A',
        data: {
          high: high.number,
          low: low.number,
          hold: `${context.installation.defaults.joiningV.value} V`,
        },
        working: () => ({
          ...NO_WORKING,
          source: 'Difference of resting voltages over both inner resistances with their leads.',
          steps: [
            {
              symbol: 'I',
              meaning: 'current between the two modules',
              formula: '(U_a - U_b) / (R_a + R_b)',
              symbols: [
                symbol('U_a', `resting voltage of module ${high.number}`, high.emfV, 'V', [
                  ...path,
                  high.id,
                  'stateOfCharge',
                ]),
                symbol('U_b', `resting voltage of module ${low.number}`, low.emfV, 'V', [
                  ...path,
                  low.id,
                  'stateOfCharge',
                ]),
                symbol('R_a', `resistance of module ${high.number}`, high.ohm, 'Ω'),
                symbol('R_b', `resistance of module ${low.number}`, low.ohm, 'Ω'),
              ],
              value: currentA,
              unit: 'A',
            },
          ],
        }),
      };
    }),
};
