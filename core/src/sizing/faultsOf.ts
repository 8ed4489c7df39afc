import { hypot } from '../values/elementary.ts';
import { ADIABATIC_S } from '../codes/leadAmpacity.ts';
import { type Insulation } from '../codes/cableKinds.ts';
import { INSULATION_C } from '../codes/ampacity.ts';
import { fixedWiringOhm, leadOhm } from '../codes/leads.ts';
import { bankFault } from '../figures/bank/bankFault.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { Circuit } from '../installation/facts.ts';
import { all, field, type Known, uniquePaths } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import {
  circuitFaults,
  type FaultAnswer,
  type FaultSource,
  waysBack,
} from '../figures/protection/faultProtection.ts';
import { isLine } from '../figures/wiring/carried.ts';
import { conductorM } from '../figures/wiring/conductorLength.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import type { Installation } from '../installation/installation.ts';
import type { Fault } from './question.ts';

const SOURCE_WORDS: Readonly<Record<FaultSource, string>> = {
  grid: 'fed by the grid',
  island: 'in island',
  generator: 'fed by a generator',
};

const LIMITED = 'the let-through that the maker of its breaker states may clear it';
const SLOW = 'the slow release of its device may end it sooner';
/** A size to ask with where any will do, mm². */
const ANY_SIZE_MM2 = 1;
/** From so many times its rating on every breaker opens at once, whatever its curve. */
const EVERY_CURVE = 20;

/** The faults that a cable must stand, and what is not stated of the sources that could feed more of them. */
export interface Faults {
  /** Those of the sources that are known, at the far end of a cable of a size. */
  readonly at: (areaMm2: number) => readonly Fault[];
  readonly missing: readonly Path[];
}

const NO_FAULTS: Faults = { at: () => [], missing: [] };
const notKnown = (...missing: readonly Path[]): Faults => ({ at: () => [], missing });

function faultOf({ source, mostA, earthMostA, lastsMs, trip }: FaultAnswer, clearS: number): Fault {
  const lastsS = lastsMs === undefined ? ADIABATIC_S : Math.min(lastsMs / 1000, ADIABATIC_S);
  return trip === 'yes'
    ? {
        label: SOURCE_WORDS[source],
        currentA: mostA,
        earthA: earthMostA,
        timeS: Math.min(clearS, lastsS),
        unless: LIMITED,
      }
    : { label: SOURCE_WORDS[source], currentA: mostA, earthA: earthMostA, timeS: lastsS, unless: SLOW };
}

/** Faults at the far end of a circuit with a cable of a size, by what feeds them. */
function ofCircuit(installation: Installation, circuit: Circuit, insulation: Insulation): Faults {
  if (circuit.partitionId === undefined) return notKnown(['circuits', circuit.id, 'partitionId']);
  const clearS = installation.defaults.faultClearS.value;
  const answersWith = (areaMm2: number | undefined): readonly Known<FaultAnswer>[] =>
    circuitFaults(
      installation,
      { ...circuit, cable: { ...circuit.cable, areaMm2 } },
      INSULATION_C[insulation],
    ).map(({ answer }) => answer);
  // Which sources are known does not hang on the size: any will do to ask.
  const missing = answersWith(ANY_SIZE_MM2).flatMap((answer) => (answer.known ? [] : answer.missing));
  return {
    at: (areaMm2) =>
      answersWith(areaMm2).flatMap((answer) => (answer.known ? [faultOf(answer.value, clearS)] : [])),
    missing: uniquePaths(missing),
  };
}

/** A fault that the battery drives through both poles of a lead: I = U / (R_bank + R_lead). */
function ofBattery(
  installation: Installation,
  line: CableLine,
  stackId: string,
  insulation: Insulation,
): Faults {
  const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
  const bank = compiled && bankOfSet(compiled);
  if (compiled === undefined || bank === undefined) return NO_FAULTS;
  if (!bank.known) return notKnown(...bank.missing);
  if (bank.value === 'none') return NO_FAULTS;
  const { maxV } = bank.value;
  const given = all({ fault: bankFault(compiled, bank.value), lengthM: line.lengthM });
  if (!given.known) return notKnown(...given.missing);
  const { fault, lengthM } = given.value;
  return {
    at: (areaMm2) => [
      {
        label: 'fed by the bank',
        currentA: maxV / (fault.ohm + 2 * leadOhm(lengthM, areaMm2, INSULATION_C[insulation])),
        timeS: installation.defaults.faultClearS.value,
        unless: 'the let-through that the maker of its device states may clear it',
      },
    ],
    missing: [],
  };
}

/**
 * A fault that the grid feeds, where its device opens at once whatever its curve. What inverters and generators give for their few
 * hundred milliseconds is less than a cable for their load stands, and asks for nothing here.
 */
function ofGrid(
  installation: Installation,
  line: CableLine,
  deviceA: number,
  insulation: Insulation,
): Faults {
  const { site, defaults } = installation;
  if (site.grid === 'none') return NO_FAULTS;
  const given = all({
    prospectiveA: field(site.prospectiveFaultA, 'site', 'prospectiveFaultA'),
    lengthM: conductorM(installation, line),
    volts: installation.lineVoltageV,
  });
  if (!given.known) return notKnown(...given.missing);
  const { prospectiveA, lengthM, volts } = given.value;
  return {
    at: (areaMm2) => {
      const cableOhm =
        waysBack(line.names.filter(isLine).length) *
        fixedWiringOhm(lengthM, areaMm2, INSULATION_C[insulation]);
      // A supply that is all reactance ahead of a cable that is all resistance gives the most.
      const currentA = volts / hypot(volts / prospectiveA, cableOhm);
      return currentA < EVERY_CURVE * deviceA
        ? []
        : [{ label: SOURCE_WORDS.grid, currentA, timeS: defaults.faultClearS.value, unless: LIMITED }];
    },
    missing: [],
  };
}

/**
 * The faults that a cable must stand until its device opens; none where it has no device. Cables are taken as hot as their insulation
 * allows, where k is tabulated: a cold one lets more through, and has as much further to go (PVC: 1.20 times the current, and from 20 °C
 * k is 150 and not 115).
 */
export function faultsOf(
  installation: Installation,
  line: CableLine,
  deviceA: number | undefined,
  insulation: Insulation,
): Faults {
  if (line.circuit !== undefined) return ofCircuit(installation, line.circuit, insulation);
  const isLimited = line.use === 'pv' || line.use === 'control' || line.use === 'earth';
  if (deviceA === undefined || isLimited) return NO_FAULTS;
  if (line.use === 'ac') return ofGrid(installation, line, deviceA, insulation);
  const stackId = line.branch?.stackId ?? stackOfEnds(installation, line);
  return stackId === undefined ? NO_FAULTS : ofBattery(installation, line, stackId, insulation);
}

function stackOfEnds({ network }: Installation, { ends }: CableLine): string | undefined {
  if (!network.known) return undefined;
  const ids = new Set(ends.map(({ partId }) => partId));
  return network.value.parts.find(({ id, stackId }) => stackId !== undefined && ids.has(id))?.stackId;
}
