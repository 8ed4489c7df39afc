import { closedComms, moduleName } from '../../figures/bank/bankComms.ts';
import { all, field, known, unknownAt } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';

/** Addresses on the battery bus: each once, and in the order of the bus where the type wants them set by hand. */
export const bankAddresses: Check<'bank.addresses'> = checkOf({
  id: 'bank.addresses',
  title: 'Addresses of the battery modules',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('the addresses of the modules'),
  run: (context) =>
    eachRuling(
      bankAddresses.id,
      context,
      'Address rule of the battery type.',
      bankSubject,
      (compiled) => {
        const comms = closedComms(compiled);
        if (comms === undefined || !comms.known) return comms;
        const { type, order } = comms.value;
        const path = ['stacks', compiled.stack.id, 'bank'];
        const rule = field(type.addressRule, 'types', type.id, 'addressRule');
        if (rule.known && rule.value === 'automatic')
          return all({ rule, order: known([]), addresses: known({}) });
        const bank = compiled.stack.bank;
        const modules = typeof bank === 'object' ? bank.modules : [];
        return all({
          rule,
          order: order === undefined ? unknownAt([...path, 'comms', 'links']) : known(order),
          addresses: all(
            Object.fromEntries(
              (order ?? []).map((id) => [
                id,
                field(modules.find((module) => module.id === id)?.address, ...path, 'modules', id, 'address'),
              ]),
            ),
          ),
        });
      },
      (compiled, { rule, order, addresses }) => {
        if (rule === 'automatic') return { reasons: [], kept: 'the modules take their addresses themselves' };
        const first = rule === 'from-0' ? 0 : 1;
        const set = new Map<string, number>(Object.entries(addresses));
        const reasons = order.flatMap((id, index) => {
          const address = set.get(id);
          const twin = order.slice(0, index).find((other) => set.get(other) === address);
          if (twin !== undefined)
            return [
              `${moduleName(compiled, id)} has address ${address ?? ''}, as ${moduleName(compiled, twin)} has`,
            ];
          return address === first + index
            ? []
            : [
                `${moduleName(compiled, id)} has address ${address ?? ''}, where ${first + index} is its place on the bus`,
              ];
        });
        return { reasons, kept: `addresses ${first} to ${first + order.length - 1} in the order of the bus` };
      },
    ),
});
