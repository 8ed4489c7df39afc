import { all } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';
import { seriesWindow } from '../../installation/seriesStack.ts';

/** Modules in series: how many fit the inverter's window at the lowest and highest voltage, and the service disconnect. */
export const bankSeries: Check<'bank.series'> = checkOf({
  id: 'bank.series',
  title: 'Modules in series',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('the number of modules in series'),
  run: (context) =>
    eachRuling(
      bankSeries.id,
      context,
      'Battery window of the inverter over the lowest and highest voltage of a module; least and largest count of the type.',
      bankSubject,
      (compiled) => {
        const bank = bankOf(compiled);
        if (bank === undefined || (bank.known && bank.value.type.joining !== 'series')) return undefined;
        return all({ bank, type: compiled.type });
      },
      (_compiled, { bank, type }) => {
        const { least, most } = seriesWindow(bank.type, type);
        const reasons: string[] = [];
        if (least > most) reasons.push(`no number of ${bank.type.name} fits the inverter window`);
        else if (bank.moduleCount < least || bank.moduleCount > most)
          reasons.push(
            `${bank.moduleCount} in series, where ${least === most ? least : `${least} to ${most}`} fit`,
          );
        if (bank.type.serviceDisconnect === 'none')
          reasons.push('the type has no service disconnect between its modules');
        return {
          reasons,
          kept: `${bank.moduleCount} in series; ${least} to ${most} fit the window and the type`,
          notes: [
            `Window ${type.batteryWindowV.min} to ${type.batteryWindowV.max} V; one module ${bank.type.minV} to ${bank.type.maxV} V.`,
          ],
        };
      },
    ),
});
