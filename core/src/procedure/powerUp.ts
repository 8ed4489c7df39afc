import { newestFirmware } from '../installation/newestFirmware.ts';
import type { BatteryType } from '../catalogue/batteryType.ts';
import type { MessageMoment } from '../catalogue/messages.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type { Analysis } from '../checks/analyse.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { enableLines } from './enableLines.ts';
import { selfCheckStep } from './selfCheck.ts';
import { confirmation, missingWords, voltageSpec } from './specs.ts';

const typeOf = ({ type }: CompiledStack): InverterType | undefined => (type.known ? type.value : undefined);

/** What most types show at a moment: said only where the type of this set does not say what it shows then. */
function unlessTold(compiled: CompiledStack, moment: MessageMoment, words: string): string[] {
  const told = typeOf(compiled)?.messages ?? [];
  return told.some(({ at, means }) => at === moment && means !== 'stop') ? [] : [words];
}

/** The battery type of the bank; undefined where there is none, or it is not known. */
function batteryOf({ stack, batteryTypes }: CompiledStack): BatteryType | undefined {
  const { bank } = stack;
  return typeof bank === 'object' && bank.batteryTypeId !== undefined
    ? batteryTypes[bank.batteryTypeId]
    : undefined;
}

const ADDRESS_WORDS = {
  automatic: 'They take their addresses by themselves, in the order of the chain.',
  'from-0': 'Set the addresses from 0 up, in the order of the chain.',
  'from-1': 'Set the addresses from 1 up, in the order of the chain.',
} as const;

const END_WORDS = {
  internal: 'The ends of the bus are terminated inside.',
  switch: 'Set the terminator switch at the ends of the bus and nowhere else.',
  plug: 'Plug a terminator into the free socket at the ends of the bus.',
  none: 'The bus wants no terminators.',
} as const;

/** Modules that talk to the inverter are woken first, the one that leads before the others. */
function wakeStep(compiled: CompiledStack): ProcedureStep[] {
  const { stack } = compiled;
  const { bank } = stack;
  const type = batteryOf(compiled);
  if (typeof bank !== 'object' || bank.comms?.loop !== 'closed') return [];
  const fitted = bank.modules.filter(({ fitted: is }) => is !== 'taken-out');
  return [
    {
      id: `wake-${stack.id}`,
      section: 'power-up',
      title: `${stack.name}: wake the battery`,
      instructions: [
        'Switch the module on that the inverter is plugged to, then the others in the order of the chain. Their devices to the inverters stay open.',
        type?.addressRule === undefined
          ? 'Set addresses as the manual of the battery says: its type does not say how.'
          : ADDRESS_WORDS[type.addressRule],
        ...(type?.terminators === undefined ? [] : [END_WORDS[type.terminators]]),
        'Normal now, and gone later: no inverter is on yet, so the modules report that nobody talks to them.',
        'Stop here: a module that reports a cell, temperature or short-circuit fault, or does not wake.',
      ],
      cautions: [
        'A battery cannot be switched off inside: its terminals are live whatever its display shows.',
      ],
      readings: [
        {
          id: 'modules-seen',
          label: 'Modules that show themselves on',
          unit: '',
          kind: 'number',
          instrument: 'display of the leading module',
          nominal: fitted.length,
          expected: { low: fitted.length, high: fitted.length },
          missing: [],
        },
      ],
    },
  ];
}

/** Voltage of the bank at each inverter before anything is switched on. */
function bankReadings({ installation }: Analysis, compiled: CompiledStack): ReadingSpec[] {
  const bank = bankOfSet(compiled);
  const spec = (id: string, label: string): ReadingSpec => {
    const base = { id, label, unit: 'V', kind: 'number' as const, instrument: 'DC voltmeter' };
    if (!bank.known) return { ...base, missing: missingWords(installation, bank.missing) };
    if (bank.value === 'none') return { ...base, missing: [] };
    const { minV, maxV } = bank.value;
    return {
      ...base,
      expected: { low: minV, high: maxV },
      abort: { low: 0, high: maxV * 1.02 },
      missing: [],
    };
  };
  const first = isOwnBank(compiled.stack) ? 'Battery voltage at its own port' : 'Battery voltage at the port';
  return compiled.stack.units.map(({ id }, index) =>
    spec(`battery-${id}`, `${first} of unit ${index + 1}, + to −`),
  );
}

type Part = 'battery' | 'inverter' | 'grid';
const ORDERS: Readonly<Record<NonNullable<InverterType['powerUpOrder']>, readonly Part[]>> = {
  'battery-inverter-grid': ['battery', 'inverter', 'grid'],
  'grid-then-battery': ['grid', 'battery', 'inverter'],
};

function partStep(part: Part, analysis: Analysis, compiled: CompiledStack, why: string): ProcedureStep[] {
  const { installation } = analysis;
  const { stack } = compiled;
  const base = { section: 'power-up' as const, id: `${part}-on-${stack.id}` };
  switch (part) {
    case 'battery':
      return stack.bank === undefined || stack.bank === 'none'
        ? []
        : [
            {
              ...base,
              title: `${stack.name}: close the battery`,
              instructions: [
                why,
                'Read the voltage and its polarity at each battery port while its device is open, from the bank’s side. Only then close the devices, one unit after the other.',
                'Normal now: a short spark or click while the capacitors fill, where the type has no filling of its own.',
                'Stop here: polarity reversed, or a voltage that stands outside what the modules can have.',
              ],
              cautions: [
                'Reversed polarity destroys the inverter at once and can start a fire.',
                'Insulated tools, eye and face protection, nobody alone.',
              ],
              readings: bankReadings(analysis, compiled),
              abortText:
                'Leave the device open if the polarity is reversed or the voltage is above that of the bank.',
            },
          ];
    case 'inverter':
      return [
        {
          ...base,
          title: `${stack.name}: switch the inverters on`,
          instructions: [why, ...inverterLines(compiled), ...enableLines(installation, compiled)],
          cautions: ['From now on the output terminals may become live at any moment.'],
          readings: [
            {
              id: 'units-on',
              label: 'Units that show themselves on',
              unit: '',
              kind: 'number',
              instrument: 'displays',
              nominal: stack.units.length,
              expected: { low: stack.units.length, high: stack.units.length },
              missing: [],
            },
            ...(stack.bank === undefined || stack.bank === 'none' || stack.bank.comms?.loop !== 'closed'
              ? []
              : [confirmation('battery-comms', 'The message of lost battery comms is gone')]),
          ],
        },
      ];
    case 'grid':
      return installation.site.grid === 'none'
        ? []
        : [
            {
              ...base,
              title: `${stack.name}: close the grid`,
              instructions: [
                why,
                'Read each line at the open isolator first. Close it with every load breaker of the backed-up boards open.',
                ...unlessTold(
                  compiled,
                  'grid-on',
                  'Normal now: the units watch the grid before they join it.',
                ),
                'Stop here: a unit that reports reversed or missing lines.',
              ],
              cautions: [
                'The grid side is live up to the isolator. Prove it on a tester that was proven before.',
              ],
              readings: gridReadings(installation),
              abortText: 'Open the isolator if a line is missing, too high, or in the wrong order.',
            },
          ];
  }
}

function gridReadings(installation: Installation): ReadingSpec[] {
  const { supply } = installation;
  if (!supply.known) return [];
  const { lines } = supply.value;
  return [
    ...lines.map((line) => voltageSpec(installation, line)),
    ...(lines.length === 3 ? [confirmation('rotation', 'Phase rotation L1, L2, L3 at every port')] : []),
  ];
}

/** Who is on first, and what the messages of the moment mean. */
function inverterLines(compiled: CompiledStack): string[] {
  const { stack } = compiled;
  const type = typeOf(compiled);
  const several = stack.units.length > 1;
  const host = stack.units.findIndex(({ id }) => id === stack.hostUnitId) + 1;
  const hostWords = host > 0 ? `unit ${host}` : 'the unit that holds battery comms and meter';
  return [
    ...(several
      ? [
          type?.hostRule === 'first-powered'
            ? `The first one on leads the set: switch ${hostWords} on first, then the others.`
            : `Switch ${hostWords} on first, then the others: it leads the set.`,
        ]
      : []),
    ...(several
      ? ['Normal now, and gone once all are on: a message that units of the set are missing.']
      : []),
    ...unlessTold(
      compiled,
      'inverter-on',
      'Normal now, and gone once the grid is closed: a message that there is none.',
    ),
    'Stop here: a configuration mismatch, two hosts, an earth or insulation fault, or a unit that restarts by itself.',
  ];
}

function firmwareStep(compiled: CompiledStack): ProcedureStep[] {
  const { stack } = compiled;
  const type = typeOf(compiled);
  const parts = type?.firmwareParts ?? [];
  const wanted = newestFirmware(stack.units.map(({ firmware }) => firmware));
  return [
    {
      id: `firmware-${stack.id}`,
      section: 'power-up',
      title: `${stack.name}: firmware`,
      instructions: [
        wanted === undefined
          ? 'Read the firmware of every unit and write it down. All units of a set need the same.'
          : stack.units.length === 1
            ? `The unit needs firmware ${wanted}.`
            : `All ${stack.units.length} units need firmware ${wanted}.`,
        ...(parts.length > 1
          ? [
              `Load in this order: ${parts.join(', ')}; restart once all of them report done. The battery comes last.`,
            ]
          : [
              'Where it has to be loaded: communication part before power part, restart once both report done, the battery last.',
            ]),
        'Loading needs a steady supply: never with the battery nearly empty or the generator alone.',
      ],
      cautions: ['A unit that is switched off while it loads may never start again.'],
      readings: [confirmation('firmware-same', 'Every unit shows the same firmware')],
    },
  ];
}

function settingsStep(compiled: CompiledStack): ProcedureStep {
  const { stack } = compiled;
  const type = typeOf(compiled);
  const order = type?.settingsOrder;
  return {
    id: `settings-${stack.id}`,
    section: 'power-up',
    title: `${stack.name}: settings`,
    instructions: [
      stack.units.length < 2
        ? 'Set the unit as its sheet says.'
        : order === 'each-alone'
          ? 'Set each unit alone, with the others off: joined, they would take each other’s values.'
          : order === 'parallel-cable-joined'
            ? 'Set them with the parallel cable joined: without it a unit takes itself for alone.'
            : 'Whether units are set alone or joined is not known of their type: follow its manual.',
      'The sheet is under Wiring, Settings: read every value back there, device by device. What it judges as different is set again.',
      'Values are kept while nothing inverts; a restart takes them up.',
      ...(type?.modesOff === undefined
        ? []
        : ['Modes that its sheet wants off are looked for one by one: some of them are on when it is new.']),
      ...(type !== undefined && type.selfCheckS === undefined
        ? [
            'Whether it has a self-check is not known of its type: look in its manual, and run it once all sources are there.',
          ]
        : []),
    ],
    cautions: [
      'A wrong grid code, battery kind or charge current can destroy equipment without any message.',
    ],
    readings: [confirmation('settings-read', 'Every setting read back as wanted')],
  };
}

/** From which voltage on an input is to show itself, where the type states it. */
function startWords(compiled: CompiledStack): string[] {
  const startV = typeOf(compiled)?.pvInputs?.minStartV;
  return startV === undefined ? [] : [`Below ${startV} V an input stays asleep: that is no fault.`];
}

/** Strings come last unless the type has an order of its own: they are live by themselves, and nothing needs them to start. */
function strings(installation: Installation, compiled: CompiledStack, isLast: boolean): ProcedureStep[] {
  const { stack } = compiled;
  const arrays = installation.arrays.filter(
    ({ array }) =>
      array.coupling === 'dc' && array.places?.some(({ stackId }) => stackId === stack.id) === true,
  );
  return arrays.length === 0
    ? []
    : [
        {
          id: `pv-on-${stack.id}`,
          section: 'power-up',
          title: `${stack.name}: close the strings`,
          instructions: [
            `Close the DC switches of ${arrays.map(({ array }) => array.name).join(', ')}, one after the other${isLast ? ', once the set runs' : ''}.`,
            ...unlessTold(
              compiled,
              'pv-on',
              'Normal now: an input wakes only above its start voltage and watches its insulation first.',
            ),
            ...startWords(compiled),
            'Stop here: an insulation fault, or an input that shows no voltage in daylight.',
          ],
          cautions: ['Strings are live in daylight whatever is switched off. Never unplug them under load.'],
          readings: [confirmation('strings-on', 'Every input shows its string')],
        },
      ];
}

const WHY: Readonly<Record<Part, string>> = {
  battery: 'The battery comes here because the inverter’s type starts from it.',
  inverter: 'The inverters come here because everything they need to start is there now.',
  grid: 'The grid comes here because the type wants to see its battery and its fellows first.',
};
const WHY_GRID_FIRST: Readonly<Record<Part, string>> = {
  grid: 'The grid comes first because the type starts from it.',
  battery: 'The battery comes after the grid, as the type wants it.',
  inverter: 'The inverters come last: they find grid and battery there.',
};

type Moment = Part | 'strings';

/** Which step turns which switch on. */
const OF_SWITCH: Readonly<Record<NonNullable<InverterType['switchOrder']>[number], Moment>> = {
  battery: 'battery',
  enable: 'inverter',
  dc: 'strings',
  ac: 'grid',
};

const SWITCH_WORDS = { battery: 'battery', enable: 'enable switch', dc: 'DC', ac: 'AC' } as const;

/** In which order things are switched on, and why each comes where it does. */
function orderOf(type: InverterType | undefined): {
  readonly moments: readonly Moment[];
  readonly why: (part: Part) => string;
} {
  if (type?.switchOrder !== undefined) {
    const own = `It comes here in the type’s own order: ${type.switchOrder.map((one) => SWITCH_WORDS[one]).join(', ')}.`;
    const enable = ' Turn each unit on by its enable switch.';
    return {
      moments: type.switchOrder.map((one) => OF_SWITCH[one]),
      why: (part) => (part === 'inverter' ? `${own}${enable}` : own),
    };
  }
  const order = type?.powerUpOrder;
  const words = order === 'grid-then-battery' ? WHY_GRID_FIRST : WHY;
  const unknown =
    order === undefined ? ' The type does not state its order: check it in the manual before you start.' : '';
  return {
    moments: [...ORDERS[order ?? 'battery-inverter-grid'], 'strings'],
    why: (part) => `${words[part]}${unknown}`,
  };
}

/** From dead to live, set by set: battery awake, firmware, settings, then each source in the order that the type wants. */
export function powerUpSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { moments, why } = orderOf(typeOf(compiled));
  const steps = moments.map((moment, at) => {
    if (moment === 'strings') return strings(analysis.installation, compiled, at === moments.length - 1);
    const own = partStep(moment, analysis, compiled, why(moment));
    // Firmware and settings want the units on, and nothing joined to the grid that need not be.
    return moment === 'inverter' ? [...own, ...firmwareStep(compiled), settingsStep(compiled)] : own;
  });
  // A self-check wants everything but the strings; where those came before, it is the end.
  const isStringsLast = moments.at(-1) === 'strings';
  return [
    ...wakeStep(compiled),
    ...(isStringsLast ? steps.slice(0, -1) : steps).flat(),
    ...selfCheckStep(compiled),
    ...(isStringsLast ? (steps.at(-1) ?? []) : []),
  ];
}
