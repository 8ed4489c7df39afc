import { z } from 'zod';
import { type Result } from '../values/problem.ts';
import { FORMAT } from './schema.ts';

/** One step from a format number to the next. The version name says what changed. */
export interface Migration {
  readonly from: number;
  readonly name: string;
  readonly up: (document: Readonly<Record<string, unknown>>) => Record<string, unknown>;
}

const oldCharging = z.looseObject({
  stacks: z.array(z.looseObject({ id: z.unknown(), gridChargeW: z.unknown() })),
  generators: z.array(z.looseObject({ connection: z.unknown(), stackId: z.unknown() })),
});

function splitCharging(document: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const parsed = oldCharging.safeParse(document);
  if (!parsed.success) return { ...document };
  const { stacks, generators } = parsed.data;
  const onPort = new Set(
    generators.filter((one) => one.connection === 'generator-port').map((one) => one.stackId),
  );
  return {
    ...document,
    stacks: stacks.map((stack) =>
      stack.gridChargeW !== undefined && onPort.has(stack.id)
        ? { ...stack, generatorChargeW: stack.gridChargeW }
        : stack,
    ),
  };
}

/** The steps, in order. A test fails for a step that no test ran. */
export const MIGRATIONS: readonly Migration[] = [
  {
    from: 1,
    name: 'AddStartCasesMetersAndDelivery',
    up: (document) => ({ ...document, startCases: [], meters: [], delivery: [] }),
  },
  {
    from: 2,
    name: 'AddBankJoining',
    // Only optional fields came: how a bank is joined is not known until somebody says it.
    up: (document) => ({ ...document }),
  },
  {
    from: 3,
    name: 'AddControllers',
    up: (document) => ({ ...document, controllers: [] }),
  },
  {
    from: 4,
    name: 'AddDevicesInstrumentsAndEarthPoints',
    // Only lists came; what nobody stated of them is not known.
    up: (document) => ({ ...document, devices: [], instruments: [], earthPoints: [] }),
  },
  {
    from: 5,
    name: 'SplitGeneratorCharging',
    // One setting counted for both sides; a set on the generator port keeps what was typed for it.
    up: (document) => ({ ...splitCharging(document), accepted: [] }),
  },
];

const stamped = z.looseObject({ format: z.number().int().positive() });

/**
 * Brings a parsed JSON value up to the current format, without judging the rest of it.
 * A document without a format number, or from a later format, is a problem with its sentence.
 */
export function migrate(
  value: unknown,
  migrations: readonly Migration[] = MIGRATIONS,
  target: number = FORMAT,
): Result<Record<string, unknown>> {
  const parsed = stamped.safeParse(value);
  if (!parsed.success) {
    const isObject = typeof value === 'object' && value !== null && !Array.isArray(value);
    return {
      ok: false,
      problems: [
        isObject
          ? {
              path: ['format'],
              message:
                'is missing or not a whole number from 1, so this is not a design document of this workbench',
            }
          : {
              path: [],
              message:
                'this is not a design document: an object with "format", "name" and "site" is expected',
            },
      ],
    };
  }
  let document: Record<string, unknown> = parsed.data;
  if (parsed.data.format > target) {
    const message = `is ${parsed.data.format}, but this version reads up to ${target}; open it with a newer version`;
    return { ok: false, problems: [{ path: ['format'], message }] };
  }
  for (const step of migrations) {
    if (step.from < target && document.format === step.from)
      document = { ...step.up(document), format: step.from + 1 };
  }
  return { ok: true, value: document };
}
