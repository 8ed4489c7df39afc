import type { Analysis } from '../checks/analyse.ts';
import { unitLossStep } from './unitLossStep.ts';
import { generatorLines } from '../installation/generatorLines.ts';
import type { CompiledGenerator, CompiledStack, Installation } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import { walkOf } from '../modes/walk.ts';
import { modesOf } from '../modes/modes.ts';
import { generatorRating } from '../figures/generator/rating.ts';
import { formatQuantity } from '../words/quantity.ts';
import type { ProcedureStep, ReadingSpec } from './schema.ts';
import { acArraysOf, confirmation, frequencySpec, mostShiftedHz, voltageSpec } from './specs.ts';
import { fedLinesOf } from './darkLines.ts';

/** Shed stages, lowest first: each dropped and taken back by itself. */
export function shedSteps({ installation }: Analysis, { stack }: CompiledStack): ProcedureStep[] {
  const stages = installation.partitions
    .filter((one) => one.kind === 'shed' && one.stackId === stack.id)
    .sort((a, b) => (a.shedStage ?? 9) - (b.shedStage ?? 9));
  if (stages.length === 0) return [];
  return [
    {
      id: `shed-${stack.id}`,
      section: 'load',
      title: `${stack.name}: shed stages`,
      instructions: stages.map(({ name, shedWhen, shedBelowSoc }) =>
        shedWhen === 'at-transfer'
          ? `${name} drops at the transfer: open the grid and see that it is dark.`
          : `${name} drops ${shedBelowSoc === undefined ? 'by state of charge, which is not stated' : `below ${Math.round(shedBelowSoc * 100)} %`}: set the threshold above the present state of charge, see it drop, and set it back.`,
      ),
      cautions: ['A stage that does not drop drains what the others need: note it before going on.'],
      readings: stages.flatMap(({ id, name }) => [
        confirmation(`shed-${id}`, `${name} dropped, and nothing else`),
        confirmation(`shed-back-${id}`, `${name} came back by itself`),
      ]),
    },
  ];
}

const SCHOOL_WORDS = {
  'generator-port': 'its own port',
  'transfer-switch': 'the transfer switch ahead of the grid port',
  inlet: 'its inlet',
} as const;

/** How far a display may stand above what is set. */
const DISPLAY = 1.1;

/** The most that may be seen charging: what is set, and never more than the engine is to give in all. */
const mostChargeW = (setW: number, engineW: number | undefined, share: number): number =>
  Math.min(setW * DISPLAY, engineW === undefined ? Infinity : engineW * share);

/** Whether a generator feeds a line; taken for yes while that is not known. */
function isReachedBy({ supply }: Installation, { generator, type }: CompiledGenerator) {
  const reached =
    type.known && supply.known ? generatorLines(generator, type.value, supply.value) : undefined;
  return (line: Line): boolean =>
    !supply.known || reached?.known !== true || reached.value.includes(supply.value.lines.indexOf(line));
}

/** One generator: start, warm-up, transfer, load, charging held to its limit, and back. */
function generatorStep(analysis: Analysis, compiled: CompiledStack, one: CompiledGenerator): ProcedureStep {
  const { installation } = analysis;
  const { generator, type } = one;
  const set = type.known ? type.value : undefined;
  const school = generator.connection;
  const key = school === 'generator-port' ? 'generatorChargeW' : 'gridChargeW';
  const chargeW = compiled.stack[key];
  const count = compiled.stack.units.length;
  const rating = generatorRating(one);
  const engineW = rating.known && rating.value.engineW.known ? rating.value.engineW.value : undefined;
  const share = installation.defaults.generatorLoading.value;
  const lines = fedLinesOf(analysis, compiled);
  const isFed = isReachedBy(installation, one);
  // Nominal at full load, higher by the droop with none.
  const { site, defaults } = installation;
  const mostHz = (site.frequencyHz ?? 0) * (1 + (set?.droop ?? 0)) + defaults.frequencyToleranceHz.value;
  const charge: ReadingSpec = {
    id: 'charge-power',
    label: 'Charging from the generator, all units',
    unit: 'W',
    kind: 'number',
    instrument: 'displays',
    ...(chargeW === undefined
      ? { missing: ['charging power from the generator'] }
      : {
          nominal: chargeW * count,
          expected: { high: mostChargeW(chargeW * count, engineW, share) },
          missing: [],
        }),
  };
  return {
    id: `generator-${generator.id}`,
    section: 'generator',
    title: `${generator.name}, by ${school === undefined ? 'a connection that is not stated' : SCHOOL_WORDS[school]}`,
    instructions: [
      set?.start === 'two-wire'
        ? 'Let the inverter call the set: raise its start threshold above the present state of charge.'
        : 'Start the set by hand, in the open, its exhaust away from windows.',
      `Let it warm up ${set === undefined ? 'as its manual says' : `for ${set.warmUpS} s`} before it takes load.`,
      school === 'transfer-switch'
        ? 'Turn the transfer switch from the grid side to the generator side: break before make.'
        : 'The set takes it over when voltage and frequency have settled.',
      engineW === undefined
        ? 'Take the loads on one by one, then let it charge. What the engine gives at this site is not known: watch its speed.'
        : `Take the loads on one by one, then let it charge. Load and charging together stay below ${formatQuantity(engineW * share, 'W')}, ${Math.round(share * 100)} % of the engine at this site.`,
      'Stop the set in the other order: charging off, load back to the battery, let it cool, stop.',
    ],
    cautions: [
      'Exhaust kills without a smell: never in or beside a room with people.',
      'The set must never meet the grid: prove the interlock by hand before the first start.',
    ],
    readings: [
      ...lines.map((line) => voltageSpec(installation, line, isFed(line) ? set?.regulation : 0)),
      frequencySpec(installation, mostHz),
      charge,
      confirmation('returned', 'The loads came back to the battery without dropping'),
    ],
    abortText: 'Open the generator device if its voltage or frequency hunts, or the engine bogs down.',
  };
}

export const generatorSteps = (analysis: Analysis, compiled: CompiledStack): ProcedureStep[] =>
  analysis.installation.generators
    .filter(({ generator }) => generator.stackId === compiled.stack.id)
    .map((one) => generatorStep(analysis, compiled, one));

/** AC-coupled power on a backed-up board: held back when the battery is full, and let go again. */
export function heldBackSteps({ installation }: Analysis, compiled: CompiledStack): ProcedureStep[] {
  return acArraysOf(installation, compiled).map(({ array }): ProcedureStep => ({
    id: `held-back-${array.id}`,
    section: 'island',
    title: `${array.name}: held back in island`,
    instructions: [
      'In island with little load and the battery nearly full, in full sun.',
      array.curtailedBy === 'frequency'
        ? 'The set raises the frequency; the array falls off its power and comes back when it sinks.'
        : array.curtailedBy === 'shedding'
          ? 'The array is switched off by its contactor and comes back later.'
          : 'Nothing is stated that holds it back: stop before the battery is full.',
    ],
    cautions: ['A battery that cannot take more disconnects, and the set with it: watch its voltage.'],
    readings: [
      {
        id: 'shift',
        label: 'Highest frequency while held back',
        unit: 'Hz',
        kind: 'number',
        instrument: 'meter with frequency',
        ...(installation.site.frequencyHz === undefined || array.curtailedBy !== 'frequency'
          ? { missing: [] }
          : {
              expected: { low: installation.site.frequencyHz, high: mostShiftedHz(installation) },
              missing: [],
            }),
      },
      confirmation('held', 'The array was held back, and came back'),
    ],
    abortText: 'Open the array’s device if the battery reports overvoltage.',
  }));
}

/** One count of bonds for each mode that can be brought about, from the walk. */
export function bondStep({ installation }: Analysis): ProcedureStep[] {
  const walk = walkOf(installation);
  if (!walk.known) return [];
  const readings = modesOf(installation)
    .filter(({ kind }) => kind !== 'unit-lost')
    .flatMap(({ id, label }): ReadingSpec[] => {
      const neutrals = walk.value.get(id)?.neutrals ?? [];
      if (neutrals.length === 0) return [];
      const counts = neutrals.map(({ bonds }) => bonds.length);
      const isOpen = neutrals.some(({ perhaps }) => perhaps.length > 0);
      return [
        {
          id: `bonds-${id}`,
          label: `${label}: places where neutral and earth are joined`,
          unit: '',
          kind: 'number',
          instrument: 'earth clamp and the drawing',
          nominal: Math.max(...counts),
          expected: { low: 1, high: 1 },
          missing: isOpen ? ['a relay or a switched pole of this mode'] : [],
        },
      ];
    });
  return readings.length === 0
    ? []
    : [
        {
          id: 'bonds',
          section: 'protection',
          title: 'Neutral, earth and residual-current devices in each mode',
          instructions: [
            'Bring each mode about and prove that neutral and earth are joined once: more than one lets current flow on earth conductors, none blinds the residual-current devices.',
            'In each of them trip every residual-current device by its test button and by a tester at the furthest point.',
          ],
          cautions: ['The test current is real: nobody touches the earth conductors meanwhile.'],
          readings: [
            ...readings,
            confirmation('residual', 'Every residual-current device tripped in every mode, in its time'),
          ],
        },
      ];
}

/** The end of the test: the loss of a unit where it must be survived, rapid shutdown, black start, endurance. */
export function lastSteps(analysis: Analysis, compiled: CompiledStack): ProcedureStep[] {
  const { installation } = analysis;
  const { stack } = compiled;
  const lines = fedLinesOf(analysis, compiled);
  const shutdown = installation.arrays.filter(
    ({ array }) =>
      array.rapidShutdown === 'fitted' && array.places?.some(({ stackId }) => stackId === stack.id) === true,
  );
  const hours = installation.site.targetAutonomyH;
  const hasBank = typeof stack.bank === 'object';
  return [
    ...unitLossStep(analysis, compiled),
    ...(shutdown.length === 0
      ? []
      : [
          {
            id: `rapid-shutdown-${stack.id}`,
            section: 'protection' as const,
            title: `${stack.name}: rapid shutdown`,
            instructions: ['Press the rapid-shutdown switch in sun and start a stopwatch.'],
            cautions: ['Treat the strings as live until the voltage is read.'],
            readings: [
              {
                id: 'shutdown-v',
                label: 'Voltage at the input after 30 s',
                unit: 'V',
                kind: 'number' as const,
                instrument: 'DC voltmeter',
                // Outside the array, the planning value of codes that ask for it.
                expected: { low: 0, high: 30 },
                missing: [],
              },
            ],
          },
        ]),
    ...(hasBank
      ? [
          {
            id: `black-start-${stack.id}`,
            section: 'endurance' as const,
            title: `${stack.name}: black start`,
            instructions: [
              'With the grid isolator open, switch the whole set off, wait a minute, and start it from its battery alone.',
              'Everything that starts by itself starts together: open the load breakers first where the limits say so.',
            ],
            cautions: ['The output comes up by itself.'],
            readings: [
              ...lines.map((line) => voltageSpec(installation, line)),
              confirmation('black-started', 'The set came up without the grid'),
            ],
          },
          {
            id: `endurance-${stack.id}`,
            section: 'endurance' as const,
            title: `${stack.name}: endurance`,
            instructions: [
              `Leave it in island on its real loads${hours === undefined ? '' : ` towards the ${hours} h that are wanted`}, for at least an hour, and read the state of charge at the beginning and at the end.`,
              'End it at the backup reserve at the latest.',
            ],
            cautions: ['Nobody leaves the site while it runs in island for the first time.'],
            readings: [
              {
                id: 'hours-run',
                label: 'Hours in island',
                unit: 'h',
                kind: 'number' as const,
                instrument: 'clock',
                expected: { low: 1 },
                missing: [],
              },
              confirmation('no-alarm', 'No alarm, no smell, no hot terminal'),
            ],
          },
        ]
      : []),
  ];
}
