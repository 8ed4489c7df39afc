import { bankCircuitOf } from '../figures/bank/ofSet.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { holdV, joinSteps } from '../figures/bank/joining.ts';
import { formatQuantity } from '../words/quantity.ts';
import { confirmation } from './specs.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';

/** More modules than this are measured in groups by the people on site; the record keeps one line for all. */
const LISTED = 32;

/** How modules that stand in parallel are brought together; nothing to do for one module or a series stack. */
export function moduleStep(installation: Installation, compiled: CompiledStack): ProcedureStep[] {
  const { stack } = compiled;
  const circuit = bankCircuitOf(compiled);
  if (!circuit.known || typeof circuit.value === 'string' || circuit.value.modules.length < 2) return [];
  const { modules } = circuit.value;
  const [first] = modules;
  const joiningV = installation.defaults.joiningV.value;
  const hold = holdV(joiningV, first?.type.nominalV ?? 0);
  const isStated =
    typeof stack.bank === 'object' && stack.bank.modules.some((module) => module.stateOfCharge !== undefined);
  const apart = isStated
    ? joinSteps(circuit.value, joiningV).filter((step) => step.say === 'bring-nearer')
    : [];
  const middleV = [...modules].sort((a, b) => a.emfV - b.emfV)[Math.floor((modules.length - 1) / 2)]?.emfV;
  const voltages = modules.slice(0, LISTED).map(({ id, number }): ReadingSpec => ({
    id: `module-voltage-${stack.id}-${id}`,
    label: `Voltage of module ${number}, not joined yet`,
    unit: 'V',
    kind: 'number',
    instrument: 'DC voltmeter, 0.01 V',
    ...(isStated && middleV !== undefined
      ? { nominal: middleV, expected: { low: middleV - hold, high: middleV + hold }, missing: [] }
      : { missing: [`state of charge of the modules of ${stack.name}`] }),
  }));
  return [
    {
      id: `modules-${stack.id}`,
      section: 'gates',
      title: `Bring the battery modules together: ${stack.name}`,
      instructions: [
        `Measure every module before it is joined. Only modules within ${formatQuantity(hold, 'V')} of the bars are closed onto them, one by one.`,
        ...apart.map(
          (step) =>
            `Module ${step.moduleNumber} stands ${Math.abs(step.differenceV).toFixed(2)} V ${step.differenceV < 0 ? 'below' : 'above'} the others and would drive ${formatQuantity(step.currentA, 'A')}: ${step.differenceV < 0 ? 'charge' : 'discharge'} it by itself first.`,
        ),
      ],
      cautions: [
        'A battery cannot be switched off inside: insulated tools, eye and face protection, no rings or watches.',
        'Joining modules of unequal voltage drives a current that nothing limits but their leads.',
      ],
      readings: [
        ...voltages,
        confirmation(`modules-joined-${stack.id}`, 'Each module closed only within the stated difference'),
      ],
    },
  ];
}
