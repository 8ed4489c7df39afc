import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { compile } from '../../installation/compile.ts';
import { mostFrontM } from '../../installation/place/front.ts';
import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { baseDesign, stack1 } from '../../testkit/designs.ts';
import { addWall } from '../../testkit/wall.ts';
import { placeFront } from './placeFront.ts';

/** The unit stands out by 0.2 m and wants 0.8 m before it. */
const free =
  (frontFreeM?: number) =>
  (design: Design): void => {
    const { wall } = addWall(design);
    Object.assign(wall ?? {}, { frontFreeM });
  };

checkTable(placeFront, [
  { name: 'no wall plan', state: 'nothing' },
  { name: 'nobody has measured what is free', edit: free(), state: 'nothing' },
  { name: 'as much as is wanted', edit: free(1), state: 'within', value: 1, limit: 1 },
  { name: 'a passage', edit: free(0.9), state: 'over', value: 0.9, limit: 1 },
  {
    name: 'a type nobody has chosen',
    edit: (d) => {
      free(1)(d);
      delete stack1(d).inverterTypeId;
    },
    state: 'unknown',
    missing: 'stacks/s/inverterTypeId',
  },
]);

it('what is wanted in front is the most of what is known, and says when something is not', () => {
  const wall = (edit: (design: Design) => void) => {
    const design = baseDesign();
    edit(design);
    return compile(design, SAMPLE_TYPES).wall;
  };
  expect(mostFrontM(wall(free()))).toEqual({ mostM: 1, isWhole: true });
  const unknown = (d: Design): void => {
    free()(d);
    delete stack1(d).inverterTypeId;
  };
  expect(mostFrontM(wall(unknown))).toEqual({ mostM: undefined, isWhole: false });
});
