import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { analyse } from '../checks/analyse.ts';
import type { Design } from '../design/schema.ts';
import { SOUND, soundDesign } from '../testkit/sound.ts';
import { generateProcedure } from './generate.ts';
import type { Procedure } from './schema.ts';

function procedureOf(name: string, edit: (design: Design) => void = () => undefined): Procedure {
  const spec = SOUND.find((one) => one.name === name);
  if (spec === undefined) throw new Error(`There is no sound design "${name}".`);
  const design = soundDesign(spec);
  edit(design);
  return generateProcedure(analyse(design, SAMPLE_TYPES));
}

const imbalance = ({ steps }: Procedure) => steps.filter(({ id }) => id.startsWith('imbalance-'));
const middles = (step: Procedure['steps'][number] | undefined): Record<string, number> =>
  Object.fromEntries(
    (step?.readings ?? []).flatMap(({ id, nominal }) =>
      nominal === undefined || !id.includes('current') ? [] : [[id, Number(nominal.toFixed(2))]],
    ),
  );

/** Another figure of the inverter type of a design, which is copied into it. */
const typeWith = (over: object) => (design: Design) => {
  const type = SAMPLE_TYPES.find(({ id }) => id === design.stacks[0]?.inverterTypeId);
  if (type?.kind === 'inverter') design.types.push({ ...type, ...over });
};

describe('the worst imbalance', () => {
  // Limit 1.2 of two lines: x = P · (2 − 1.2) / (2 + 1.2) = P / 4, (1 − 0.25) / 0.625 = 1.2. 5000 W on L1: 41.67 and 10.42 A at 120 V,
  // 31.25 A return by the neutral; 6250 / (η · 51.2) from the battery, η = 0.94.
  it('by the limit of a type, on each line in turn', () => {
    const steps = imbalance(procedureOf('split-phase native'));
    expect(steps.map(({ id }) => id)).toEqual(['imbalance-s-L1', 'imbalance-s-L2']);
    expect(middles(steps[0])).toEqual({
      'current-L1': 41.67,
      'current-L2': 10.42,
      'neutral-current': 31.25,
      'battery-current': 129.86,
    });
    expect(steps[0]?.instructions[0]).toContain(
      '5 kW (41.7 A) of resistive load on L1, and 1.25 kW (10.4 A) on L2',
    );
  });

  // Limit 0.9 of three: x = P · 2.1 / 4.8 = 0.4375 P; (1 − 0.4375) / 0.625 = 0.9. 4000 W: 17.39, 7.61 and 9.78 A at 230 V.
  it('of three lines', () =>
    expect(middles(imbalance(procedureOf('three-phase native'))[2])).toMatchObject({
      'current-L3': 17.39,
      'current-L1': 7.61,
      'current-L2': 7.61,
      'neutral-current': 9.78,
    }));

  // Neutral of 40 A at 120 V: 4800 W on one line alone.
  it('behind an autotransformer by its neutral, and its thermal sensor is watched', () => {
    const [step] = imbalance(procedureOf('split-phase by autotransformer'));
    expect(middles(step)).toMatchObject({ 'current-L1': 40, 'neutral-current': 40 });
    expect(middles(step)['current-L2']).toBeUndefined();
    expect(step?.readings.map(({ id }) => id)).toContain('thermal');
    expect(step?.instructions.join(' ')).toContain('set by the neutral of the autotransformer');
  });

  it('is held to the backup output, and to what the bank gives', () => {
    const [byOutput] = imbalance(procedureOf('split-phase native', typeWith({ backupPortA: 20 })));
    expect(middles(byOutput)).toMatchObject({ 'current-L1': 20, 'neutral-current': 15 });
    // One module of 280 Ah gives 0.94 · 44.8 · its continuous current, over 1.25 times what stands on L1.
    const [byBank] = imbalance(
      procedureOf('split-phase native', ({ stacks: [stack] }) => {
        if (typeof stack?.bank === 'object') stack.bank.modules.splice(1);
      }),
    );
    expect(byBank?.instructions.join(' ')).toContain('set by the battery bank');
  });

  it('is not known while the type says nothing of it: no line is loaded alone', () => {
    const [step] = imbalance(procedureOf('split-phase native', typeWith({ imbalanceLimit: undefined })));
    expect(step?.readings[0]?.missing).toEqual(['imbalance limit of the type']);
  });

  it.each([
    ['three-phase from single', ['Worst imbalance']],
    ['one unit', []],
  ])('%s has no step of its own for it', (name, leftOut) => {
    const procedure = procedureOf(name);
    expect(imbalance(procedure)).toEqual([]);
    expect(
      procedure.leftOut?.filter(({ what }) => what === 'Worst imbalance').map(({ what }) => what),
    ).toEqual(leftOut);
  });
});
