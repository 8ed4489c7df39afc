import { z } from 'zod';
import { typeMessages } from './messages.ts';
import { count, fraction, positive, temperatureC } from '../values/quantities.ts';
import { common, commsPins, placing, portName, rising, terminals } from './common.ts';

export const batteryType = z
  .strictObject({
    ...common,
    kind: z.literal('battery'),
    chemistry: z.enum(['lithium-iron-phosphate', 'lithium-nickel', 'lead-acid']),
    nominalV: positive,
    capacityAh: positive,
    internalMilliohm: positive.optional(),
    openCircuit: z
      .array(z.strictObject({ soc: fraction, voltageV: positive }))
      .min(2)
      .max(24)
      .refine((points) => rising(points, (point) => point.soc), 'must list states of charge in rising order')
      .refine((points) => rising(points, (point) => point.voltageV), 'must rise with the state of charge')
      .optional()
      .describe('Resting voltage of a module by state of charge.'),
    continuousDischargeA: positive,
    peakDischargeA: positive,
    peakS: positive,
    chargeA: positive,
    minV: positive,
    maxV: positive,
    usableFraction: fraction.gt(0),
    joining: z.enum(['parallel', 'series']).describe('How modules of this type make a bank.'),
    minModules: count.optional().describe('Least series count of a stack.'),
    maxModules: count.describe('Largest parallel count per comms group, or series count in a stack.'),
    chargeMinC: temperatureC.describe('No charging below this cell temperature.'),
    groupLimitA: positive.optional().describe('Largest current the battery management allows a comms group.'),
    makeGroup: z
      .string()
      .min(1)
      .max(40)
      .optional()
      .describe('Types of one group understand each other on the bus.'),
    commsProtocols: z.array(portName).max(12).optional(),
    commsChain: z
      .strictObject({
        hostPort: portName,
        fromPort: portName,
        toPort: portName,
        piles: z
          .enum(['same-way', 'mirrored'])
          .optional()
          .describe(
            'Where modules stand in several piles: whether the bus runs the same way in each, or back.',
          ),
      })
      .optional()
      .describe('Host to the first module, then from one port to the other, in order.'),
    addressRule: z.enum(['automatic', 'from-0', 'from-1']).optional(),
    terminators: z.enum(['internal', 'switch', 'plug', 'none']).optional(),
    serviceDisconnect: z.enum(['yes', 'none']).optional().describe('A link that opens the string for work.'),
    commsPins,
    messages: typeMessages,
    shortCircuitA: positive.optional().describe('Into a bolted fault, from one module.'),
    terminals,
    ...placing,
  })
  .refine((type) => type.minV < type.nominalV && type.nominalV < type.maxV, {
    path: ['minV'],
    message: 'needs minV below nominalV below maxV',
  })
  .refine((type) => type.peakDischargeA >= type.continuousDischargeA, {
    path: ['peakDischargeA'],
    message: 'must not be below the continuous discharge current',
  })
  .refine(
    ({ openCircuit, minV, maxV }) =>
      openCircuit === undefined ||
      openCircuit.every(({ voltageV }) => voltageV >= minV * 0.999 && voltageV <= maxV * 1.001),
    { path: ['openCircuit'], message: 'must lie between the lowest and the highest voltage' },
  )
  .refine(({ minModules, maxModules }) => minModules === undefined || minModules <= maxModules, {
    path: ['minModules'],
    message: 'must not be above the largest count',
  });
export type BatteryType = z.infer<typeof batteryType>;
