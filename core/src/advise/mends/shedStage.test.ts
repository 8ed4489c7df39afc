import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { analyse } from '../../checks/analyse.ts';
import { analysisCauses } from '../../checks/causes.ts';
import type { Design } from '../../design/schema.ts';
import { baseDesign, heater } from '../../testkit/designs.ts';
import { mendsOf } from './mendsOf.ts';

/**
 * A freezer of 400 W that should run and a heater of 1,600 W that could, all day: from the reserve of 50 % to the cut-off of 10 %
 * 4 · 100 Ah · 51.2 V · 0.4 = 8192 Wh; 2000 / 0.94 + 50 = 2177.7 W last 3.76 h.
 */
function withTwo(targetAutonomyH: number, importance: 'could' | 'must' = 'could'): Design {
  const design = baseDesign();
  design.site.targetAutonomyH = targetAutonomyH;
  design.circuits = [
    {
      id: 'c1',
      name: 'Freezer',
      lines: ['L1'],
      partitionId: 'b',
      items: [heater('i1', { runningW: 400, hoursPerDay: 24, importance: 'should' })],
    },
    {
      id: 'c2',
      name: 'Heater',
      lines: ['L1'],
      partitionId: 'b',
      items: [heater('i2', { runningW: 1600, hoursPerDay: 24, importance })],
    },
  ];
  return design;
}

function shedding(design: Design) {
  const analysis = analyse(design, SAMPLE_TYPES);
  const cause = analysisCauses(analysis).find(({ worst }) => worst.check === 'bank.autonomy');
  return cause && mendsOf(cause, analysis, SAMPLE_TYPES).find(({ id }) => id === 'shed-stage');
}

it('the heater goes half way down: 4096 Wh at 2177.7 W are 1.88 h, 4096 Wh at 400 / 0.94 + 50 = 475.5 W are 8.61 h: 10.5 h', () => {
  const mend = shedding(withTwo(10));
  expect(mend?.title).toBe('Drop Heater below 30 % of charge, as a shed stage');
  expect(mend?.after.state).toBe('tight');
  expect(mend?.after.message).toMatch(/10\.5 h/);
});

it('11 h take the freezer as well: 1.88 h + 4096 Wh / 50 W', () =>
  expect(shedding(withTwo(11))?.title).toBe('Drop Heater, Freezer below 30 % of charge, as a shed stage'));

it('what must run is not dropped: without the freezer the rest lasts 1.88 + 2.34 h of 10', () =>
  expect(shedding(withTwo(10, 'must'))).toBeUndefined());

it('a reserve that is no higher than one step above the cut-off has no half way', () => {
  const design = withTwo(10);
  const [stack] = design.stacks;
  if (typeof stack?.bank === 'object') stack.bank.reserveSoc = 0.12;
  expect(shedding(design)).toBeUndefined();
});

it('stages that stand the wrong way round change levels, and one below the end of discharge comes above it', () => {
  const design = withTwo(2);
  [0.05, 0.4].forEach((shedBelowSoc, at) =>
    design.partitions.push({
      id: `x${at}`,
      name: ['First', 'Second'][at] ?? '',
      kind: 'shed',
      stackId: 's',
      shedStage: at + 1,
      shedWhen: 'below-soc',
      shedBelowSoc,
    }),
  );
  const analysis = analyse(design, SAMPLE_TYPES);
  const cause = analysisCauses(analysis).find(({ worst }) => worst.check === 'load.shed-levels');
  // Discharge ends at 10 %: 5 % goes up to 15 %, and the higher of the two levels to the first stage.
  const [mend] = cause === undefined ? [] : mendsOf(cause, analysis, SAMPLE_TYPES);
  expect(mend?.title).toBe('First below 40 %, Second below 15 %');
  expect(mend?.after.state).toBe('within');
});
