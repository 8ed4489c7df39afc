import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import { bankTypes, type CompiledBank, compileBank, type FindBattery } from './bank.ts';
import { type BankCircuit, bankCircuit } from './bankCircuit.ts';
import { floorSoc, nearEmpty } from './nearEmpty.ts';

const finder =
  ({ batteryTypes }: CompiledStack): FindBattery =>
  (id, path) => {
    const found = id === undefined ? undefined : batteryTypes[id];
    return found === undefined ? unknownAt(path) : known(found);
  };

const bankPath = ({ stack }: CompiledStack): string[] => ['stacks', stack.id, 'bank'];

/** The bank of a set as one source; 'none' where the design says there is no battery. */
export const bankOfSet = remember((compiled: CompiledStack): Known<CompiledBank | 'none'> => {
  const { bank, id } = compiled.stack;
  if (bank === undefined) return unknownAt(bankPath(compiled));
  return bank === 'none' ? known('none') : compileBank(bank, id, finder(compiled));
});

/** The bank as a network of resistances. */
export const bankCircuitOf = remember(
  (compiled: CompiledStack): Known<BankCircuit | 'one string' | 'none'> => {
    const { stack, defaults, routes, mounted, bar, breaker, batteryDevices: devices } = compiled;
    const { bank } = stack;
    if (bank === undefined) return unknownAt(bankPath(compiled));
    if (bank === 'none') return known('none');
    return bankCircuit({
      stack,
      bank,
      defaults,
      routes,
      mounted,
      bar,
      breaker,
      devices,
      findType: finder(compiled),
    });
  },
);

/** The types of the fitted modules, each once. */
export const bankTypesOf = remember((compiled: CompiledStack): Known<readonly BatteryType[]> => {
  const { bank, id } = compiled.stack;
  return typeof bank === 'object' ? bankTypes(bank, id, finder(compiled)) : known([]);
});

/** The bank as a start finds it when it is nearly empty: once for all modes. 'none' where nothing shares. */
export const nearEmptyOf = remember((compiled: CompiledStack): Known<BankCircuit | 'none'> => {
  const circuit = bankCircuitOf(compiled);
  if (!circuit.known) return circuit;
  return typeof circuit.value === 'string' ? known('none') : nearEmpty(circuit.value, compiled.stack);
});

/** Where discharge of a set ends, as a state of charge; undefined without a bank, and while bank or cut-off are not known. */
export function floorSocOf(compiled: CompiledStack): number | undefined {
  const whole = bankOfSet(compiled);
  const { bank } = compiled.stack;
  const cutoffSoc = typeof bank === 'object' ? bank.cutoffSoc : undefined;
  return !whole.known || whole.value === 'none' || cutoffSoc === undefined
    ? undefined
    : floorSoc(cutoffSoc, whole.value.type);
}
