import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import { commsOf, onBus } from '../../figures/bank/bankComms.ts';
import { bankTypesOf } from '../../figures/bank/ofSet.ts';
import type { BankComms } from '../../installation/facts.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import { counted, formatQuantity } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';

function openLoop({ setPoints }: BankComms, path: readonly string[]) {
  if (setPoints === undefined) return unknownAt([...path, 'setPoints']);
  return all({
    chargeV: field(setPoints.chargeV, ...path, 'setPoints', 'chargeV'),
    floatV: field(setPoints.floatV, ...path, 'setPoints', 'floatV'),
    cutoffV: field(setPoints.cutoffV, ...path, 'setPoints', 'cutoffV'),
  });
}

type SetPoints = { readonly chargeV: number; readonly floatV: number; readonly cutoffV: number };

/** Stated voltages that leave the range of the bank, or stand in a wrong order. */
function voltageReasons(bank: CompiledBank, setPoints: SetPoints | undefined): string[] {
  if (setPoints === undefined) return [];
  const { chargeV, floatV, cutoffV } = setPoints;
  return [
    ...(chargeV > bank.maxV
      ? [`the charge voltage ${formatQuantity(chargeV, 'V')} is above ${formatQuantity(bank.maxV, 'V')}`]
      : []),
    ...(floatV > chargeV ? ['the float voltage is above the charge voltage'] : []),
    ...(cutoffV < bank.minV
      ? [`the cut-off voltage ${formatQuantity(cutoffV, 'V')} is below ${formatQuantity(bank.minV, 'V')}`]
      : []),
    ...(cutoffV >= floatV ? ['the cut-off voltage is not below the float voltage'] : []),
  ];
}

/** The types of the modules on the bus, each once. */
function busTypes(compiled: CompiledStack): Known<readonly BatteryType[]> {
  const { bank } = compiled.stack;
  const ids = new Set(
    typeof bank === 'object'
      ? onBus(compiled).map((module) => module.batteryTypeId ?? bank.batteryTypeId)
      : [],
  );
  return mapKnown(bankTypesOf(compiled), (types) => types.filter(({ id }) => ids.has(id)));
}

/** Closed loop: a protocol that both sides speak, and modules of one make. Open loop: stated voltages inside the bank's own. */
export const bankLoop: Check<'bank.loop'> = checkOf({
  id: 'bank.loop',
  title: 'Closed or open loop',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('how inverters and battery understand each other'),
  run: (context) =>
    eachRuling(
      bankLoop.id,
      context,
      'Protocols and make groups of the types; in an open loop, the voltage range of the battery type.',
      bankSubject,
      (compiled) => {
        const comms = commsOf(compiled);
        const bank = bankOf(compiled);
        if (comms === undefined || bank === undefined) return undefined;
        if (!comms.known) return comms;
        const path = ['stacks', compiled.stack.id, 'bank', 'comms'];
        const { loop } = comms.value;
        return all({
          comms,
          bank,
          inverter: compiled.type,
          circuit: busTypes(compiled),
          protocol: loop === 'closed' ? field(comms.value.protocol, ...path, 'protocol') : known(''),
          setPoints:
            loop === 'open' || (comms.value.offBus?.length ?? 0) > 0
              ? openLoop(comms.value, path)
              : known(undefined),
        });
      },
      (_compiled, { comms, bank, inverter, circuit, protocol, setPoints }) => {
        if (comms.loop === 'closed') {
          const reasons: string[] = [];
          if (!(inverter.batteryProtocols ?? []).includes(protocol))
            reasons.push(`${inverter.name} does not speak ${protocol}`);
          for (const type of circuit)
            if (!(type.commsProtocols ?? []).includes(protocol))
              reasons.push(`${type.name} does not speak ${protocol}`);
          const makes = new Set(circuit.map((type) => type.makeGroup ?? type.id));
          if (makes.size > 1)
            reasons.push(
              `modules of ${makes.size} makes on one closed loop (${circuit.map((type) => type.name).join(', ')}): one bus, one make`,
            );
          const off = comms.offBus?.length ?? 0;
          return {
            reasons: [...reasons, ...voltageReasons(bank, setPoints)],
            kept: `closed loop by ${protocol}, one make${off > 0 ? `; ${counted(off, 'module')} left off the bus on purpose, by stated voltages` : ''}`,
          };
        }
        const reasons = voltageReasons(bank, setPoints);
        return {
          reasons,
          kept: 'open loop by stated voltages; no limit of the battery management is counted on',
        };
      },
    ),
});
