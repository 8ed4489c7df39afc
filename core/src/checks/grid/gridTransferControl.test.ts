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

/** With a bus of its own, beside an inverter with such ports. */
const onBus =
  (ports: { port: string; plus: string; minus: string }[] | undefined, stated: object = {}) =>
  (design: Design): void => {
    const { commsPins: _ports, ...inverter } = variantOf('inverter', 'hybrid-5k-1ph', { id: 'variant' });
    design.types.push({ ...inverter, ...(ports === undefined ? {} : { commsPins: ports }) });
    stack1(design).inverterTypeId = 'variant';
    behind({ commsPins: [{ port: 'box', plus: '1', minus: '2' }], ...stated })(design);
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
    name: 'is told by its bus, from a port that the inverter has for it',
    edit: onBus([{ port: 'box', plus: '1', minus: '2' }]),
    state: 'within',
    says: 'the inverters tell',
  },
  {
    name: 'has a bus, and the inverter has no port for it',
    edit: onBus([{ port: 'BAT', plus: '4', minus: '5' }], { sensesGrid: 'no' }),
    state: 'over',
    says: 'nothing of the inverters tells it',
  },
  {
    name: 'has a bus, and the ports of the inverter are not known',
    edit: onBus(undefined),
    state: 'unknown',
    missing: 'types/variant/commsPins',
  },
  {
    name: 'on a site without a grid there is nothing to learn',
    edit: (d) => {
      d.site.grid = 'none';
      behind({ sensesGrid: 'no' })(d);
    },
    state: 'nothing',
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
