import { all, field, known, unknownAt } from '../../values/known.ts';
import { parallelBus, unitName } from '../../installation/parallelBus.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

const SET = { switch: 'set by its switch', plug: 'plugged', internal: 'set by itself', none: 'not wanted' };

/** Terminators at exactly the two ends of a bus that is a line; none on a ring. */
export const stackBusEnds: Check<'stack.bus-ends'> = checkOf({
  id: 'stack.bus-ends',
  title: 'Terminators of the parallel bus',
  family: 'stack',
  modes: ['island'],
  sentences: rulingSentences('where the bus is terminated'),
  run: (context) =>
    eachRuling(
      stackBusEnds.id,
      context,
      'A line is terminated at its two ends and nowhere else.',
      stackSubject,
      (compiled) => {
        const bus = parallelBus(compiled);
        if (bus === undefined) return undefined;
        if (!bus.known) return bus;
        const { rule, plugged } = bus.value;
        const path = ['stacks', compiled.stack.id];
        const isSet = rule.ends === 'switch' || rule.ends === 'plug';
        return all({
          bus,
          order: plugged.order === undefined ? unknownAt([...path, 'busLinks']) : known(plugged.order),
          // A type that ends its own bus needs nothing said, and takes no terminator of anybody's.
          terminated: isSet
            ? field(compiled.stack.terminated, ...path, 'terminated')
            : known(compiled.stack.terminated ?? []),
        });
      },
      (compiled, { bus: { rule }, order, terminated }) => {
        const isLine = rule.shape === 'line' && (rule.ends === 'switch' || rule.ends === 'plug');
        const ends = isLine ? [order[0], order.at(-1)].filter((id) => id !== undefined) : [];
        const name = (id: string): string => unitName(compiled, id);
        return {
          reasons: [
            ...ends
              .filter((id) => !terminated.includes(id))
              .map((id) => `${name(id)} is an end of the bus and has no terminator`),
            ...terminated
              .filter((id) => !ends.includes(id))
              .map((id) =>
                isLine || rule.shape === 'ring'
                  ? `${name(id)} has a terminator and is no end of the bus`
                  : `${name(id)} has a terminator, and this type ends its own bus`,
              ),
          ],
          kept: isLine
            ? `terminators at the two ends (${ends.map(name).join(' and ')}), ${SET[rule.ends]}`
            : `the terminator is ${SET[rule.ends]} by this type`,
        };
      },
    ),
});
