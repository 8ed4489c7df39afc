import { ADIABATIC_K, ampacityOf, columnA, factorsOf, tabulatedRow } from '../codes/ampacity.ts';
import { largestDeviceA, smallConductorA } from '../codes/deviceFor.ts';
import { leadSizeWords, rangeWords } from '../codes/leadSizes.ts';
import { codeProfile } from '../codes/profile.ts';
import type { TableValue } from '../codes/tableValues.ts';
import { dropV } from './drop.ts';
import type { ConductorQuestion, SizeAnswer, SizeTest } from './question.ts';

/** Conductors that share a line have at least this size in North American practice (1/0 AWG), mm². */
const PARALLEL_FROM_MM2 = 53.5;
/** What a fuse lets pass for its conventional time, over its rating. */
const FUSE_HOLDS = 1.6;
/** A conductor withstands an overload of this much for that time. */
const OVERLOAD = 1.45;
/** Figures that are equal but for rounding are equal. */
const EQUAL = 1e-9;
/** A terminal takes a size that is a hair thicker than its range: 53.5 and 54 mm² are one size. */
const SAME_SIZE = 1.02;

const round = (value: number): string => String(Number(value.toPrecision(4)));

function atMost(
  test: SizeTest,
  value: number,
  limit: number,
  unit: SizeAnswer['unit'],
  working: () => string,
): SizeAnswer {
  return {
    test,
    value,
    limit,
    unit,
    working,
    state: value <= limit * (1 + EQUAL) + EQUAL ? 'within' : 'over',
  };
}

/** The load for which device and terminals are chosen: 1.25 times what stays and the rest in North American practice, all of it in metric. */
export const demandA = ({ profile, continuousA, passingA }: ConductorQuestion): number =>
  codeProfile(profile).continuousFactor * continuousA + passingA;

const demandWords = (question: ConductorQuestion): string =>
  question.profile === 'metric'
    ? `${round(demandA(question))} A`
    : `1.25 · ${round(question.continuousA)} + ${round(question.passingA)} = ${round(demandA(question))} A`;

/** How much of one conductor there is, and how it lies. */
export type Lying = Pick<ConductorQuestion, 'profile' | 'laid' | 'parallel' | 'terminalColumn'>;

/** What all parallel conductors of a size carry, A; undefined where the tables do not say. */
export function carriesA({ profile, laid, parallel }: Lying, areaMm2: number): number | undefined {
  const each = ampacityOf(profile, laid, areaMm2);
  return each === 'not tabulated' ? undefined : each * parallel;
}

/** Who has put a value in place of one of the tables, in words. */
export const tableValueWords = ({ by, reason }: TableValue): string => `overridden by ${by}: ${reason}`;

/** The values that licensed persons have put in place of those of the tables, and that a size goes by. */
export function ownValues({ profile, laid }: Lying, areaMm2: number): readonly TableValue[] {
  const row = tabulatedRow(profile, laid, areaMm2)?.own;
  return [...(row === undefined ? [] : [row]), ...factorsOf(profile, laid).own];
}

/** The table value with its factors, in words. */
export function carriesWords({ profile, laid, parallel }: Lying, areaMm2: number): string {
  const { ambient, grouping, neutral, own } = factorsOf(profile, laid);
  const row = tabulatedRow(profile, laid, areaMm2);
  const isOwnSize = row !== undefined && Math.abs(row.areaMm2 - areaMm2) <= areaMm2 * (SAME_SIZE - 1);
  const told = (...parts: readonly (string | false | undefined)[]): string => {
    const said = parts.filter((part) => typeof part === 'string');
    return said.length === 0 ? '' : ` (${said.join(', ')})`;
  };
  const by = (table: TableValue['table']): string | undefined => {
    const found = own.find((one) => one.table === table);
    return found && tableValueWords(found);
  };
  const factors = [
    `${row?.ampacityA ?? 'not tabulated'}${told(
      row !== undefined && !isOwnSize && `as ${leadSizeWords(row.areaMm2)}, the next thinner of the table`,
      row?.own && tableValueWords(row.own),
    )}`,
    `${ambient}${told(`${round(laid.ambientC)} °C`, by('ambient'))}`,
    `${grouping}${told('grouping', by('grouping'))}`,
    ...(neutral === 1 ? [] : [`${neutral} (loaded neutral)`]),
    ...(parallel === 1 ? [] : [`${parallel} in parallel`]),
  ];
  return factors.join(' · ');
}

/** Iz at the smaller of the two capacities in North American practice, A. */
function protectedA(question: Lying, areaMm2: number, ampacityA: number): number {
  if (question.profile === 'metric') return ampacityA;
  const column = columnA(question.terminalColumn, areaMm2, question.laid.tables);
  return column === 'not tabulated' ? ampacityA : Math.min(ampacityA, column * question.parallel);
}

/** The load against what the conductor carries. */
function carrying(question: ConductorQuestion, areaMm2: number): SizeAnswer[] {
  const { profile, continuousA, passingA, terminalColumn, parallel } = question;
  const ampacityA = carriesA(question, areaMm2);
  if (ampacityA === undefined) return [];
  const words = (): string => `${carriesWords(question, areaMm2)} = ${round(ampacityA)} A`;
  const loadA = continuousA + passingA;
  const answers = [atMost('load', loadA, ampacityA, 'A', () => `${round(loadA)} A of I_z = ${words()}`)];
  const column =
    profile === 'metric' ? 'not tabulated' : columnA(terminalColumn, areaMm2, question.laid.tables);
  if (column !== 'not tabulated')
    answers.push(
      atMost(
        'terminal-column',
        demandA(question),
        column * parallel,
        'A',
        () =>
          `${demandWords(question)} of ${round(column * parallel)} A in the ${terminalColumn.replace('C', ' °C')} column`,
      ),
    );
  return answers;
}

/** A device against what the conductor behind it carries: I_n ≤ I_z, or by the North American rule; I_2 ≤ 1.45 · I_z for a fuse. */
export function deviceAnswers(
  question: Lying & Pick<ConductorQuestion, 'isFuse'>,
  deviceA: number | undefined,
  areaMm2: number,
): SizeAnswer[] {
  const { profile, isFuse } = question;
  const ampacityA = carriesA(question, areaMm2);
  if (deviceA === undefined || ampacityA === undefined) return [];
  const words = (): string => `${carriesWords(question, areaMm2)} = ${round(ampacityA)} A`;
  const heldA = protectedA(question, areaMm2, ampacityA);
  const limitA = largestDeviceA(profile, heldA, areaMm2);
  const smallA = smallConductorA(profile, areaMm2);
  const answers = [
    atMost(smallA !== undefined && heldA > smallA ? 'small-conductor' : 'device', deviceA, limitA, 'A', () =>
      profile === 'metric'
        ? `I_n = ${round(deviceA)} A of I_z = ${words()}`
        : `${round(deviceA)} A of ${round(limitA)} A that ${leadSizeWords(areaMm2)} allows at ${round(heldA)} A`,
    ),
  ];
  if (profile === 'metric' && isFuse)
    answers.push(
      atMost(
        'overload',
        deviceA,
        (OVERLOAD * ampacityA) / FUSE_HOLDS,
        'A',
        () =>
          `I_2 = 1.6 · ${round(deviceA)} = ${round(FUSE_HOLDS * deviceA)} A of 1.45 · I_z = ${round(OVERLOAD * ampacityA)} A`,
      ),
    );
  return answers;
}

function parallelRule({ profile, parallel }: ConductorQuestion, areaMm2: number): SizeAnswer[] {
  if (parallel === 1 || profile === 'metric') return [];
  const isThick = areaMm2 * SAME_SIZE >= PARALLEL_FROM_MM2;
  return [
    {
      test: 'parallel',
      state: isThick ? 'within' : 'over',
      value: areaMm2,
      limit: PARALLEL_FROM_MM2,
      unit: 'mm²',
      working: () => `${leadSizeWords(areaMm2)} in parallel; from 1/0 AWG on`,
    },
  ];
}

function dropping(question: ConductorQuestion, areaMm2: number): SizeAnswer[] {
  const { lengthM, volts, continuousA, passingA, powerFactor, dropLimit, start } = question;
  if (lengthM === undefined) return [];
  const share = (test: SizeTest, currentA: number, pf: number, limit: number): SizeAnswer => {
    const lostV = dropV(question, areaMm2, lengthM, currentA, pf);
    return atMost(
      test,
      lostV / volts,
      limit,
      '',
      () =>
        `${round(lostV)} V of ${round(volts)} V at ${round(currentA)} A over ${round(lengthM)} m, power factor ${round(pf)}`,
    );
  };
  return [
    // At the load itself: no code multiplies a drop by what it wants of a device.
    share('drop', continuousA + passingA, powerFactor, dropLimit),
    ...(start === undefined ? [] : [share('start-drop', start.currentA, start.powerFactor, start.dropLimit)]),
  ];
}

/** S ≥ √(I² · t) / k for the fault that asks most. */
function adiabatic({ faults, laid, parallel }: ConductorQuestion, areaMm2: number): SizeAnswer[] {
  const wants = faults(areaMm2).map((fault) => ({
    fault,
    leastMm2: (fault.currentA * Math.sqrt(fault.timeS)) / ADIABATIC_K[laid.insulation],
  }));
  if (wants.length === 0) return [];
  const { fault, leastMm2 } = wants.reduce((a, b) => (b.leastMm2 > a.leastMm2 ? b : a));
  const isEnough = areaMm2 * parallel >= leastMm2 * (1 - EQUAL);
  return [
    {
      test: 'adiabatic',
      state: isEnough ? 'within' : fault.unless === undefined ? 'over' : 'tight',
      value: leastMm2,
      limit: areaMm2 * parallel,
      unit: 'mm²',
      working: () =>
        `${fault.label}: √(${round(fault.currentA)}² · ${round(fault.timeS)}) / ${ADIABATIC_K[laid.insulation]} = ${round(leastMm2)} mm²${
          isEnough || fault.unless === undefined ? '' : `; ${fault.unless}`
        }`,
    },
  ];
}

function fitting({ terminals, profile }: ConductorQuestion, areaMm2: number): SizeAnswer[] {
  return terminals.map(({ label, minMm2, maxMm2 }): SizeAnswer => {
    const isThin = areaMm2 * SAME_SIZE < minMm2;
    const isThick = areaMm2 > maxMm2 * SAME_SIZE;
    return {
      test: 'terminal',
      state: isThin || isThick ? 'over' : 'within',
      value: areaMm2,
      limit: isThin ? minMm2 : maxMm2,
      unit: 'mm²',
      working: () => `${label} takes ${rangeWords(profile, minMm2, maxMm2)}`,
    };
  });
}

interface Judge {
  readonly tests: readonly SizeTest[];
  readonly judge: (question: ConductorQuestion, areaMm2: number) => readonly SizeAnswer[];
}

const JUDGES: readonly Judge[] = [
  { tests: ['load', 'terminal-column'], judge: carrying },
  {
    tests: ['device', 'overload', 'small-conductor'],
    judge: (question, areaMm2) => deviceAnswers(question, question.deviceA, areaMm2),
  },
  { tests: ['parallel'], judge: parallelRule },
  { tests: ['drop', 'start-drop'], judge: dropping },
  { tests: ['adiabatic'], judge: adiabatic },
  { tests: ['terminal'], judge: fitting },
];

/** The tests of a size that can be made with what is known: all of them, or those wanted. */
export const judgeSize = (
  question: ConductorQuestion,
  areaMm2: number,
  wanted?: ReadonlySet<SizeTest>,
): readonly SizeAnswer[] =>
  JUDGES.flatMap(({ tests, judge }) =>
    wanted === undefined || tests.some((test) => wanted.has(test))
      ? judge(question, areaMm2).filter(({ test }) => wanted?.has(test) !== false)
      : [],
  );

/** How far a test is past its limit; above 1 over. */
export const strainOf = ({ test, value, limit, state }: SizeAnswer): number => {
  const strain =
    test === 'parallel' || (test === 'terminal' && value < limit) ? limit / value : value / limit;
  return state === 'over' ? Math.max(strain, 1 + EQUAL) : strain;
};
