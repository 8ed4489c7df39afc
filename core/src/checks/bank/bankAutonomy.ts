import { islandBoard } from '../../figures/loads/boards.ts';
import { type Autonomy, autonomy, type AutonomySegment, quotedHours } from '../../figures/bank/autonomy.ts';
import { all, field } from '../../values/known.ts';
import { clockWords } from '../../words/clock.ts';
import { formatNumber, formatQuantity } from '../../words/quantity.ts';
import { type Check, checkOf } from '../check.ts';
import type { WorkingStep } from '../finding.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';
import { lineInputs, symbol } from '../support/workings.ts';

function steps(found: Autonomy, stackId: string): WorkingStep[] {
  const path = ['stacks', stackId, 'bank'];
  return [
    {
      symbol: 'E',
      meaning: 'energy from the reserve down to the floor',
      formula: 'C · U · max(0, s − f)',
      symbols: [
        symbol('C', 'capacity of the bank', found.capacityAh, 'Ah', [...path, 'modules']),
        symbol('U', 'nominal bank voltage', found.nominalV, 'V', [...path, 'batteryTypeId']),
        symbol('s', 'state of charge at the start', found.startSoc, '', [...path, 'reserveSoc']),
        symbol('f', 'floor: cut-off, or what the type leaves unusable', found.floorSoc, '', [
          ...path,
          'cutoffSoc',
        ]),
      ],
      value: found.energyWh,
      unit: 'Wh',
    },
    ...found.segments.map((segment, index) => segmentStep(found, segment, index)),
    ...(found.segments.length > 1 ? [sumStep(found)] : []),
  ];
}

function segmentStep(found: Autonomy, segment: AutonomySegment, index: number): WorkingStep {
  const only = found.segments.length === 1;
  const stretch = `${formatQuantity(segment.fromSoc, 'fraction')} to ${formatQuantity(segment.toSoc, 'fraction')}`;
  return {
    symbol: only ? 't' : `t_${index + 1}`,
    meaning: only ? 'hours to the floor' : `hours from ${stretch}`,
    formula: found.isOwn ? 'E / (a · P / η + P_idle)' : 'E / (P / η + P_idle)',
    symbols: [
      ...(found.isOwn
        ? [symbol('a', 'part of the hardest-working inverter, whose own bank is empty first', found.part, '')]
        : []),
      symbol(
        'P_idle',
        found.isOwn ? 'idle power of this inverter' : 'idle power of all inverters',
        found.idleW,
        'W',
      ),
      symbol(
        'E',
        only ? 'energy from the reserve down to the floor' : `energy from ${stretch}`,
        segment.energyWh,
        'Wh',
      ),
      symbol('P', only ? 'average backed-up load' : 'average load not yet shed', segment.loadW, 'W'),
      symbol('η', 'inverter efficiency at this load', segment.efficiency, ''),
    ],
    value: segment.hours,
    unit: 'h',
  };
}

function sumStep(found: Autonomy): WorkingStep {
  const names = found.segments.map((_, index) => `t_${index + 1}`);
  return {
    symbol: 't',
    meaning: 'hours to the floor, with the stages shed on the way',
    formula: names.join(' + '),
    symbols: found.segments.map((segment, index) =>
      symbol(names[index] ?? '', 'hours of the stretch', segment.hours, 'h'),
    ),
    value: found.hours,
    unit: 'h',
  };
}

const whenWords = ({ byHour }: Autonomy): string =>
  byHour === undefined
    ? 'at the average load'
    : `when the outage begins at ${clockWords(byHour.worst.startH)}, the worst hour`;

/** The other answers, each with its name: from the typed hour, at the average load, and from full. */
function otherWords(reserve: Autonomy, full: Autonomy): string {
  const hours = (value: number): string => (Number.isFinite(value) ? `${formatNumber(value)} h` : 'for ever');
  const typed = reserve.byHour?.typed;
  const parts = [
    ...(typed === undefined ? [] : [`from ${clockWords(typed.startH)}: ${hours(typed.hours)}`]),
    ...(reserve.byHour === undefined ? [] : [`at the average load: ${hours(reserve.hours)}`]),
    `from full: ${hours(quotedHours(full))}`,
  ];
  const text = parts.join('; ');
  return ` ${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

/** Hours from the reserve, where an outage may begin, against the hours asked for: from the worst hour of the day where items state their hours. */
export const bankAutonomy: Check<'bank.autonomy'> = checkOf({
  id: 'bank.autonomy',
  title: 'Autonomy from the reserve',
  family: 'bank',
  modes: ['island'],
  sentences: {
    over: '{{subject}} lasts {{value}} from the reserve {{when}}; {{limit}} are asked for.{{others}}',
    tight: '{{subject}} lasts {{value}} from the reserve {{when}}, for {{limit}} asked.{{others}}',
    within: '{{subject}} lasts {{value}} from the reserve {{when}}, for {{limit}} asked.{{others}}',
    unknown: '{{subject}}: autonomy cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankAutonomy.id,
      context,
      'h',
      bankSubject,
      (compiled) => {
        const reserve = autonomy(compiled, 'reserve', 'average');
        const full = autonomy(compiled, 'full', 'average');
        if (reserve === undefined || full === undefined) return undefined;
        const target = field(context.installation.site.targetAutonomyH, 'site', 'targetAutonomyH');
        return all({ reserve, full, target, board: islandBoard(compiled) });
      },
      (compiled, { reserve, full, target, board }) => ({
        value: quotedHours(reserve),
        limit: target,
        bound: 'at-least',
        data: { when: whenWords(reserve), others: otherWords(reserve, full) },
        working: () => ({
          steps: steps(reserve, compiled.stack.id),
          inputs: lineInputs(board, undefined),
          source: 'Usable energy over the DC power that the average load and the idle inverters draw.',
          notes: [
            'The average load is running W times hours per day over 24.',
            ...(reserve.byHour === undefined
              ? []
              : [
                  'Items that say when they run are spread over those hours, the others over the whole day; the battery is spent stretch by stretch from each full hour, and the shortest counts.',
                ]),
          ],
        }),
      }),
    ),
});
