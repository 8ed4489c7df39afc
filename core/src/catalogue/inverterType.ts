import { z } from 'zod';
import { typeMessages } from './messages.ts';
import { count, entities, fraction, id, name, nonNegative, positive } from '../values/quantities.ts';
import {
  common,
  commsPins,
  deratingPoints,
  networkJoin,
  placing,
  portName,
  rising,
  shortCircuit,
  terminals,
  timeCurve,
  windowV,
} from './common.ts';

/** The ways inverters can be joined that the compiler knows. */
export const arrangement = z.enum([
  'one-unit',
  'parallel-single-phase',
  'split-phase-native',
  'split-phase-autotransformer',
  'split-phase-from-single',
  'three-phase-native',
  'three-phase-from-single',
  'three-phase-ring',
  'ac-coupled-storage',
  'dc-side-box',
]);
export type Arrangement = z.infer<typeof arrangement>;

/**
 * Whether an arrangement makes its lines from units that do not each make all of them: then each unit belongs to a line, in a
 * ring to the line of its first terminal.
 */
export const isUnitPerLine = (one: Arrangement | undefined): boolean =>
  one === 'three-phase-from-single' || one === 'split-phase-from-single' || one === 'three-phase-ring';

/** How far the output of a type may be from the line voltage and still be meant for it: 230 V gear on 220 to 240 V. */
const VOLTAGE_FIT = 0.1;

/** What a type makes from line to neutral, V: a type of two lines of its own states what lies between them. */
export const madeLineV = ({ nativeLines, outputV }: Pick<InverterType, 'nativeLines' | 'outputV'>): number =>
  nativeLines === 2 ? outputV / 2 : outputV;

/** Whether a type may serve lines of a voltage in an arrangement; a box on the DC side makes none of its own. */
export const fitsVoltage = (
  type: Pick<InverterType, 'nativeLines' | 'outputV'>,
  arrangement: Arrangement,
  lineVoltageV: number,
): boolean =>
  arrangement === 'dc-side-box' || Math.abs(madeLineV(type) - lineVoltageV) <= VOLTAGE_FIT * lineVoltageV;

const inputs = z.strictObject({
  count: z.number().int().min(1).max(12),
  maxV: positive.max(1500).describe('Largest open-circuit voltage.'),
  mpptMinV: positive.max(1500),
  mpptMaxV: positive.max(1500),
  maxA: positive.max(200).describe('Largest operating current of one input.'),
  maxIscA: positive.max(300).optional().describe('Largest short-circuit current of one input.'),
  minStartV: positive.max(1500).optional(),
});

export const inverterType = z
  .strictObject({
    ...common,
    kind: z.literal('inverter'),
    nativeLines: z
      .union([z.literal(1), z.literal(2), z.literal(3)])
      .describe('Output lines one unit makes by itself.'),
    outputV: positive
      .max(1000)
      .describe('Line-to-neutral for one- and three-line units; line-to-line for a split-phase unit.'),
    arrangements: z.array(arrangement).min(1),
    ratedVa: positive.max(1e6),
    ratedW: positive.max(1e6),
    derating: deratingPoints.describe(
      'Share of the rating left at each ambient temperature; flat outside the points.',
    ),
    overloadCurve: timeCurve.describe(
      'Longest time at each multiple of rated VA. Unlimited up to 1.0; none above the last point.',
    ),
    imbalanceLimit: nonNegative.max(3).optional().describe('Largest (max - min) / mean of the line loads.'),
    shortCircuit: shortCircuit.optional().describe('Of one unit in island.'),
    outputMilliohm: nonNegative
      .max(1000)
      .optional()
      .describe('How far the output gives way with current, as a resistance: it evens out unequal AC leads.'),
    passThroughA: positive.optional().describe('Per unit and line.'),
    gridPortA: positive.optional().describe('Per unit and line.'),
    backupPortA: positive.optional().describe('Per unit and line.'),
    outputs: entities(
      z.strictObject({
        id,
        name,
        limitA: positive.describe('Per unit and line.'),
        surgeA: positive.optional().describe('For a short time, where this output has a limit of its own.'),
      }),
      4,
    )
      .optional()
      .describe('Backup outputs of one unit, where it has several or a small one beside the main one.'),
    backupOutlet: z.enum(['yes', 'none']).optional().describe('None: it feeds nothing in island.'),
    generatorPortA: z
      .union([positive, z.literal('none')])
      .optional()
      .describe('Per unit and line.'),
    generatorPortLines: z
      .enum(['all', 'any'])
      .optional()
      .describe('Whether a generator must stand on all lines of the port, or may feed fewer.'),
    inputV: windowV.optional().describe('Line-to-neutral voltage at which it accepts grid or generator.'),
    inputHz: z
      .strictObject({ min: positive.max(70), max: positive.max(70) })
      .refine((window) => window.min < window.max, 'needs min below max')
      .optional(),
    transferMs: nonNegative.max(60000).optional(),
    enableInput: z
      .enum(['closed-runs', 'open-runs', 'none'])
      .optional()
      .describe('Contact input that lets it run: while it is closed, or while it is open.'),
    controlOutV: positive
      .max(1000)
      .optional()
      .describe('Voltage of its output for the controls of a transfer device, where it has one.'),
    controlOutCurrent: z.enum(['ac', 'dc']).optional(),
    controlOutA: positive.max(200).optional().describe('Most that this output gives.'),
    batteryWindowV: windowV,
    lowVoltageTripV: positive,
    maxDischargeA: positive,
    surgeDischargeA: positive
      .optional()
      .describe('Battery current it takes during a short overload, where stated.'),
    maxChargeA: positive,
    efficiency: fraction.gt(0),
    efficiencyPoints: z
      .array(z.strictObject({ share: nonNegative.max(4), efficiency: fraction.gt(0) }))
      .min(2)
      .max(12)
      .refine((points) => rising(points, (point) => point.share), 'must list shares in rising order')
      .optional()
      .describe('Efficiency by share of rated W, where it is stated for more than one load.'),
    idleW: nonNegative,
    pvInputs: inputs.optional(),
    shiftsFrequency: z
      .enum(['yes', 'none'])
      .optional()
      .describe('Whether it raises the frequency in island to curtail AC-coupled generation.'),
    maxPerLine: count,
    maxTotal: count,
    lostUnit: z.enum(['rest-continue', 'set-stops']),
    batteryRule: z.enum(['shared-only', 'own-only', 'either']).optional(),
    batteryProtocols: z.array(portName).max(12).optional().describe('Protocols for closed-loop batteries.'),
    batteryCommsPort: portName.optional(),
    neutralEarthRelay: z.enum(['yes', 'no', 'external-kit']).optional(),
    relayWithGenerator: z
      .enum(['open', 'closed'])
      .optional()
      .describe('What that relay does while a generator feeds the generator port.'),
    transferNeutral: z
      .enum(['solid', 'switched'])
      .optional()
      .describe('Whether its own transfer relay opens the neutral between grid and backup port.'),
    mixedTypes: z.enum(['yes', 'no']).optional().describe('Whether a set may hold units of other types.'),
    parallelBus: z
      .strictObject({
        fromPort: portName,
        toPort: portName,
        shape: z.enum(['line', 'ring']),
        ends: z.enum(['internal', 'switch', 'plug', 'none']),
        cable: z.enum(['supplied-only', 'any']),
      })
      .optional()
      .describe('Each link leads from one port to the other; terminators sit at the two ends of a line.'),
    firmwareParts: z
      .array(portName)
      .min(1)
      .max(6)
      .optional()
      .describe('Parts with a firmware of their own, in the order of loading.'),
    hostRule: z.enum(['first-powered', 'holds-battery-and-meter', 'chosen-in-settings']).optional(),
    settingsOrder: z.enum(['parallel-cable-joined', 'each-alone']).optional(),
    modesOff: z
      .array(
        z.strictObject({
          text: z.string().min(1).max(80).describe('As its menu names it.'),
          when: z.enum(['always', 'in-a-set', 'with-a-generator', 'without-a-grid']),
        }),
      )
      .max(20)
      .optional()
      .describe('Modes of its menu that must be off.'),
    residualDevice: z.enum(['A', 'F', 'B']).optional().describe('Residual-current device it wants.'),
    filterLeakageMa: nonNegative.max(1000).optional(),
    pairIdleV: windowV.optional().describe('Healthy idle reading on a comms pair.'),
    commsPins,
    ...networkJoin,
    terminals,
    ...placing,
    powerUpOrder: z.enum(['battery-inverter-grid', 'grid-then-battery']).optional(),
    switchOrder: z
      .array(z.enum(['battery', 'enable', 'dc', 'ac']))
      .length(4)
      .refine((order) => new Set(order).size === order.length, 'names each switch once')
      .optional()
      .describe(
        'Of a type with an enable switch: in which order all are switched on. It goes before the power-up order.',
      ),
    messages: typeMessages,
    selfCheckS: z
      .union([positive.max(3600), z.literal('none')])
      .optional()
      .describe('How long its self-check takes at most.'),
    reconnectDelayS: nonNegative
      .max(3600)
      .optional()
      .describe('Time the unit watches the returned grid before it reconnects.'),
  })
  .refine(
    (type) =>
      type.lowVoltageTripV >= type.batteryWindowV.min && type.lowVoltageTripV < type.batteryWindowV.max,
    { path: ['lowVoltageTripV'], message: 'must lie inside the battery window' },
  )
  .refine((type) => type.ratedW <= type.ratedVa * 1.0001, {
    path: ['ratedW'],
    message: 'must not be above the rated VA',
  })
  .refine((type) => type.maxPerLine <= type.maxTotal, {
    path: ['maxPerLine'],
    message: 'must not be above the largest count in all',
  })
  .refine(({ pvInputs: pv }) => pv === undefined || (pv.mpptMinV < pv.mpptMaxV && pv.mpptMaxV <= pv.maxV), {
    path: ['pvInputs'],
    message: 'needs its tracking window to rise and to end below the largest voltage',
  });
export type InverterType = z.infer<typeof inverterType>;
