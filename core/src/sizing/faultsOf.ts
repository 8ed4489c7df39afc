import { ADIABATIC_S } from '../codes/leadAmpacity.ts';
import { type Insulation } from '../codes/cableKinds.ts';
import { INSULATION_C } from '../codes/ampacity.ts';
import { fixedWiringOhm, leadOhm } from '../codes/leads.ts';
import { bankFault } from '../figures/bank/bankFault.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import { circuitFaults, type FaultAnswer, type FaultSource } from '../figures/protection/faultProtection.ts';
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
/** From so many times its rating on every breaker opens at once, whatever its curve. */
const EVERY_CURVE = 20;

function faultOf({ source, currentA, lastsMs, trip }: FaultAnswer, clearS: number): Fault {
  const lastsS = lastsMs === undefined ? ADIABATIC_S : Math.min(lastsMs / 1000, ADIABATIC_S);
  return trip === 'yes'
    ? { label: SOURCE_WORDS[source], currentA, timeS: Math.min(clearS, lastsS), unless: LIMITED }
    : { label: SOURCE_WORDS[source], currentA, timeS: lastsS, unless: SLOW };
}

/** Faults at the far end of a circuit with a cable of a size, by what feeds them. */
function ofCircuit(installation: Installation, line: CableLine): (areaMm2: number) => readonly Fault[] {
  const { circuit } = line;
  const clearS = installation.defaults.faultClearS.value;
  if (circuit === undefined) return () => [];
  return (areaMm2) =>
    circuitFaults(installation, { ...circuit, cable: { ...circuit.cable, areaMm2 } }).flatMap(({ answer }) =>
      answer.known ? [faultOf(answer.value, clearS)] : [],
    );
}

/** A fault that the battery drives through both poles of a lead: I = U / (R_bank + R_lead). */
function ofBattery(
  installation: Installation,
  line: CableLine,
  stackId: string,
  insulation: Insulation,
): (areaMm2: number) => readonly Fault[] {
  const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
  const bank = compiled && bankOfSet(compiled);
  if (compiled === undefined || bank?.known !== true || bank.value === 'none') return () => [];
  const { maxV } = bank.value;
  const fault = bankFault(compiled, bank.value);
  const { lengthM } = line;
  if (!fault.known || !lengthM.known) return () => [];
  const { ohm } = fault.value;
  return (areaMm2) => [
    {
      label: 'fed by the bank',
      currentA: maxV / (ohm + 2 * leadOhm(lengthM.value, areaMm2, INSULATION_C[insulation])),
      timeS: installation.defaults.faultClearS.value,
      unless: 'the let-through that the maker of its device states may clear it',
    },
  ];
}

/** A fault that the grid feeds, where its device opens at once whatever its curve. */
function ofGrid(
  installation: Installation,
  line: CableLine,
  deviceA: number,
  insulation: Insulation,
): (areaMm2: number) => readonly Fault[] {
  const { site, lineVoltageV, defaults } = installation;
  const lengthM = conductorM(installation, line);
  const { prospectiveFaultA } = site;
  if (site.grid === 'none' || prospectiveFaultA === undefined || !lengthM.known || !lineVoltageV.known)
    return () => [];
  return (areaMm2) => {
    const cableOhm = 2 * fixedWiringOhm(lengthM.value, areaMm2, INSULATION_C[insulation]);
    const currentA = lineVoltageV.value / (lineVoltageV.value / prospectiveFaultA + cableOhm);
    return currentA < EVERY_CURVE * deviceA
      ? []
      : [{ label: SOURCE_WORDS.grid, currentA, timeS: defaults.faultClearS.value, unless: LIMITED }];
  };
}

/** The faults that a cable must stand until its device opens; none where the device, the length or the source is not known. */
export function faultsOf(
  installation: Installation,
  line: CableLine,
  deviceA: number | undefined,
  insulation: Insulation,
): (areaMm2: number) => readonly Fault[] {
  if (line.circuit !== undefined) return ofCircuit(installation, line);
  const isLimited = line.use === 'pv' || line.use === 'control' || line.use === 'earth';
  if (deviceA === undefined || isLimited) return () => [];
  if (line.use === 'ac') return ofGrid(installation, line, deviceA, insulation);
  const stackId = line.branch?.stackId ?? stackOfEnds(installation, line);
  return stackId === undefined ? () => [] : ofBattery(installation, line, stackId, insulation);
}

/** Whether what every source drives into the end of a cable is known: of circuits alone it is worked out for each source. */
export const isEveryFaultKnown = (installation: Installation, { circuit }: CableLine): boolean =>
  circuit !== undefined && circuitFaults(installation, circuit).every(({ answer }) => answer.known);

function stackOfEnds({ network }: Installation, { ends }: CableLine): string | undefined {
  if (!network.known) return undefined;
  const ids = new Set(ends.map(({ partId }) => partId));
  return network.value.parts.find(({ id, stackId }) => stackId !== undefined && ids.has(id))?.stackId;
}
