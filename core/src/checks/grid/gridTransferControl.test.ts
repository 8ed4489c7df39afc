import type { Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { gridTransferControl } from './gridTransferControl.ts';

const {
  sensesGrid: _s,
  controlSupply: _c,
  commsPins: _p,
  ...bare
} = variantOf('transfer-device', 'transfer-200a-split', {});

const behind =
  (stated: object) =>
  (design: Design): void => {
    design.types.push({ ...bare, id: 'own', ...stated });
    stack1(design).transferDeviceTypeId = 'own';
  };

checkTable(gridTransferControl, [
  { name: 'none', state: 'nothing' },
  { name: 'worked by hand', edit: behind({ control: 'hand', sensesGrid: 'no' }), state: 'nothing' },
  {
    name: 'watches the grid',
    edit: behind({ sensesGrid: 'yes' }),
    state: 'within',
    says: 'watches the grid by itself',
  },
  {
    name: 'is told by its control supply',
    edit: behind({ sensesGrid: 'no', controlSupply: 'from-inverter' }),
    state: 'within',
    says: 'the inverters tell',
  },
  {
    name: 'is told by its bus, and nobody has said whether it watches',
    edit: behind({ commsPins: [{ port: 'box', plus: '1', minus: '2' }] }),
    state: 'within',
    says: 'the inverters tell',
  },
  {
    name: 'neither',
    edit: behind({ sensesGrid: 'no', controlSupply: 'own' }),
    state: 'over',
    says: 'nothing of the inverters tells it',
  },
  {
    name: 'nobody has said',
    edit: behind({ controlSupply: 'own' }),
    state: 'unknown',
    missing: 'types/own/sensesGrid',
  },
]);
