import { closedComms, moduleName } from '../../figures/bank/bankComms.ts';
import { all, field, known, unknownAt } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';

/** The last module of the battery bus is terminated, and no other. */
export const bankBusEnds: Check<'bank.bus-ends'> = checkOf({
  id: 'bank.bus-ends',
  title: 'Terminator of the battery bus',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('where the battery bus is terminated'),
  run: (context) =>
    eachRuling(
      bankBusEnds.id,
      context,
      'The inverter terminates its end of the bus; the last module terminates the other.',
      bankSubject,
      (compiled) => {
        const found = closedComms(compiled);
        if (found === undefined || !found.known) return found;
        const { type, order, comms } = found.value;
        const path = ['stacks', compiled.stack.id, 'bank', 'comms'];
        const rule = field(type.terminators, 'types', type.id, 'terminators');
        const isSet = rule.known && (rule.value === 'switch' || rule.value === 'plug');
        return all({
          rule,
          last: order === undefined ? unknownAt([...path, 'links']) : known(order.at(-1)),
          // A type that ends its own bus needs nothing said, and takes no terminator of anybody's.
          terminated: isSet
            ? field(comms.terminated, ...path, 'terminated')
            : known<string[]>(comms.terminated ?? []),
        });
      },
      (compiled, { rule, last, terminated }) => {
        const isSet = rule === 'switch' || rule === 'plug';
        const wanted = isSet && last !== undefined ? [last] : [];
        const name = (id: string): string => moduleName(compiled, id);
        return {
          reasons: [
            ...wanted
              .filter((id) => !terminated.includes(id))
              .map((id) => `${name(id)} is the end of the battery bus and has no terminator`),
            ...terminated
              .filter((id) => !wanted.includes(id))
              .map((id) =>
                isSet
                  ? `${name(id)} has a terminator and is not the end of the battery bus`
                  : `${name(id)} has a terminator, and this type ends its own bus`,
              ),
          ],
          kept: isSet
            ? `terminated at its last module (${wanted.map(name).join('')})`
            : 'this type wants no terminator of yours',
        };
      },
    ),
});
