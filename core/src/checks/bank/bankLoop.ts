import { bankTypesOf } from '../../figures/bank/ofSet.ts';
import { commsOf } from '../../figures/bank/bankComms.ts';
import { all, field, known, unknownAt } from '../../values/known.ts';
import type { BankComms } from '../../installation/facts.ts';
import type { Check } from '../check.ts';
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

/** Closed loop: a protocol that both sides speak, and modules of one make. Open loop: stated voltages inside the bank's own. */
export const bankLoop: Check<'bank.loop'> = {
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
          circuit: bankTypesOf(compiled),
          protocol: loop === 'closed' ? field(comms.value.protocol, ...path, 'protocol') : known(''),
          setPoints: loop === 'open' ? openLoop(comms.value, path) : known(undefined),
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
          return { reasons, kept: `closed loop by ${protocol}, one make` };
        }
        const reasons: string[] = [];
        if (setPoints !== undefined) {
          const { chargeV, floatV, cutoffV } = setPoints;
          if (chargeV > bank.maxV) reasons.push(`the charge voltage ${chargeV} V is above ${bank.maxV} V`);
          if (floatV > chargeV) reasons.push('the float voltage is above the charge voltage');
          if (cutoffV < bank.minV) reasons.push(`the cut-off voltage ${cutoffV} V is below ${bank.minV} V`);
          if (cutoffV >= floatV) reasons.push('the cut-off voltage is not below the float voltage');
        }
        return {
          reasons,
          kept: 'open loop by stated voltages; no limit of the battery management is counted on',
        };
      },
    ),
};
