import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { addWall, unitAt } from '../../testkit/wall.ts';
import { wallBody } from '../../catalogue/bodies.ts';
import { placeTilt } from './placeTilt.ts';

const leaning =
  (tiltDeg: number | undefined, largestTiltDeg?: number) =>
  (design: Design): void => {
    addWall(design, { mounted: [{ ...unitAt(1, 1), tiltDeg }] });
    design.types.push(
      variantOf('inverter', 'hybrid-5k-1ph', {
        id: 'own',
        body: wallBody(0.46, 0.56, 0.2, { largestTiltDeg }),
      }),
    );
    stack1(design).inverterTypeId = 'own';
  };

checkTable(placeTilt, [
  { name: 'nobody has said that it leans', edit: leaning(undefined, 15), state: 'nothing' },
  { name: '10° of 15°', edit: leaning(10, 15), state: 'within', value: 10, limit: 15 },
  { name: '16° of 15°', edit: leaning(16, 15), state: 'over', value: 16, limit: 15 },
  { name: 'upright by its type', edit: leaning(1, 0), state: 'over', value: 1, limit: 0 },
  { name: 'upright, and nothing stated', edit: leaning(0), state: 'within', value: 0, limit: 0 },
  {
    name: 'leans, and its type says nothing of that',
    edit: leaning(5),
    state: 'unknown',
    missing: 'types/own/body/largestTiltDeg',
  },
]);
