import { checkTable } from '../../testkit/checkTable.ts';
import { closedLoop } from '../../testkit/wired.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankLoop } from './bankLoop.ts';

checkTable(bankLoop, [
  { name: 'not said', state: 'unknown', missing: 'stacks/s/bank/comms' },
  { name: 'one protocol, one make', edit: closedLoop, state: 'within', says: 'closed loop by bus-a' },
  {
    name: 'two makes on a closed loop',
    edit: (d) => {
      closedLoop(d);
      const last = bank1(d).modules[3];
      if (last !== undefined) last.batteryTypeId = 'lfp-51v-280ah';
    },
    state: 'over',
    says: 'modules of 2 makes on one closed loop',
  },
  {
    name: 'a protocol that the inverter does not speak',
    edit: (d) => {
      closedLoop(d);
      const { comms } = bank1(d);
      if (comms !== undefined) comms.protocol = 'bus-hv';
    },
    state: 'over',
    says: 'does not speak bus-hv',
  },
  {
    name: 'an open loop with voltages inside 44.8 to 57.6 V',
    edit: (d) =>
      void (bank1(d).comms = {
        loop: 'open',
        links: [],
        setPoints: { chargeV: 56, floatV: 54, cutoffV: 47 },
      }),
    state: 'within',
    says: 'no limit of the battery management is counted on',
  },
  {
    name: 'an open loop that charges to 58.4 V where 57.6 is the most',
    edit: (d) =>
      void (bank1(d).comms = {
        loop: 'open',
        links: [],
        setPoints: { chargeV: 58.4, floatV: 54, cutoffV: 47 },
      }),
    state: 'over',
    says: '58.4 V is above 57.6 V',
  },
  {
    name: 'an open loop with one voltage of three',
    edit: (d) => void (bank1(d).comms = { loop: 'open', links: [], setPoints: { chargeV: 56 } }),
    state: 'unknown',
    missing: 'stacks/s/bank/comms/setPoints/floatV',
  },
  {
    name: 'an open loop without voltages',
    edit: (d) => void (bank1(d).comms = { loop: 'open', links: [] }),
    state: 'unknown',
    missing: 'stacks/s/bank/comms/setPoints',
  },
]);
