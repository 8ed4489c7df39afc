import type { InverterType } from '../../catalogue/inverterType.ts';
import { generatorLines } from '../../installation/generatorLines.ts';
import type { CompiledGenerator, CompiledStack, Installation } from '../../installation/installation.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { type Complex, ZERO } from '../../network/complex.ts';
import { all, type Known, known } from '../../values/known.ts';
import { bankOfSet, bankTypesOf } from '../bank/ofSet.ts';
import { chargeShareOf } from '../bank/chargeShare.ts';
import { chargeShareOfLine } from '../capability/acCharge.ts';
import { type Capability, capabilityWithout } from '../capability/capability.ts';
import { generatorBoard } from '../loads/boards.ts';
import { generatorRating } from './rating.ts';

/** Settings are rounded down to what a menu offers, W. */
const STEP_W = 50;

/** A ceiling on the charging power of each unit, with the limit that makes it. */
interface Ceiling {
  readonly perUnitW: number;
  readonly setBy: string;
}

export type LargestCharge =
  | {
      readonly perUnitW: number;
      readonly setBy: string;
      /** Limits that could not be held because something of them is not known, in words. */
      readonly notHeld: readonly string[];
    }
  | { readonly refused: string };

/** P_ch from √((P + P_ch)² + Q²) = S: what room for real power a limit of VA leaves beside a load; negative where it leaves none. */
function roomW({ re, im }: Complex, limitVa: number): number {
  return limitVa > Math.abs(im) ? Math.sqrt(limitVa * limitVa - im * im) - re : -1;
}

interface Ports {
  readonly compiled: CompiledStack;
  readonly inverter: InverterType;
  readonly capability: Capability;
  readonly lineVoltageV: number;
  readonly sharing: number;
  readonly atPort: boolean;
}

/** What the port of the inverters, and a transfer device ahead of it, leave on one line. */
function portCeilings(ports: Ports, load: Complex, line: number): Ceiling[] {
  const { compiled, inverter, capability, lineVoltageV, atPort } = ports;
  const share = chargeShareOfLine(compiled, inverter, capability, line);
  const n = capability.unitsOnLine[line] ?? 0;
  const portA = atPort ? inverter.generatorPortA : inverter.gridPortA;
  const device = compiled.transferDevice;
  const ceilings: Ceiling[] = [];
  const of = (amperes: number, setBy: string): void =>
    void ceilings.push({ perUnitW: roomW(load, amperes * lineVoltageV) / share, setBy });
  if (portA !== undefined)
    of(
      (n * (portA === 'none' ? 0 : portA)) / (1 + (n > 1 ? ports.sharing : 0)),
      atPort ? 'the generator port of the inverters' : 'the grid port of the inverters',
    );
  if (!atPort && device.known && device.value !== 'none') of(device.value.ratedA, 'the transfer device');
  return ceilings;
}

/** What the inverters, the bank and its hardest-charged module take, as power at the nominal voltage. */
function batteryCeilings(compiled: CompiledStack, inverter: InverterType): Known<readonly Ceiling[]> {
  const bank = bankOfSet(compiled);
  if (!bank.known) return bank;
  if (bank.value === 'none') return known([]);
  const { nominalV, chargeA, type } = bank.value;
  const units = isOwnBank(compiled.stack) ? 1 : compiled.stack.units.length;
  const ceilings: Ceiling[] = [
    { perUnitW: inverter.maxChargeA * nominalV, setBy: 'the largest charging current of the inverter' },
    { perUnitW: (chargeA * nominalV) / units, setBy: 'the charge limit of the bank' },
  ];
  const settingA = compiled.stack.chargeCurrentA;
  if (settingA !== undefined)
    ceilings.push({ perUnitW: settingA * nominalV, setBy: 'the charge setting of each unit' });
  const share = chargeShareOf(compiled);
  if (
    share.known &&
    share.value !== 'none' &&
    share.value.share.kind === 'solved' &&
    share.value.askedA > 0
  ) {
    // Currents of a bank grow together, so the module nearest to its limit tells how far all may go.
    const { modules } = share.value.share;
    const most = Math.max(...modules.map((one) => -one.currentA / one.module.type.chargeA));
    if (most > 0)
      ceilings.push({
        perUnitW: ((share.value.askedA / most) * nominalV) / units,
        setBy: `the hardest-charged module of ${type.name}`,
      });
  }
  return known(ceilings);
}

/** Why nothing may be charged where the battery stands; undefined where nothing is against it. */
function coldRefusal(compiled: CompiledStack): string | undefined {
  const coldest = compiled.site.equipmentLowestC;
  const types = bankTypesOf(compiled);
  if (coldest === undefined || !types.known) return undefined;
  const warmest = Math.max(...types.value.map((type) => type.chargeMinC));
  return coldest < warmest
    ? `it gets down to ${coldest} °C where the battery stands, and it must not be charged below ${warmest} °C: no setting is within until that is mended.`
    : undefined;
}

/** Limits that a setting could break and that nothing is known of. */
function notHeldOf(compiled: CompiledStack, inverter: InverterType, atPort: boolean): string[] {
  const { site, stack, transferDevice } = compiled;
  const portA = atPort ? inverter.generatorPortA : inverter.gridPortA;
  const hasBank = stack.bank !== 'none';
  return [
    ...(portA === undefined ? ['the limit of the port'] : []),
    ...(!atPort && !transferDevice.known ? ['the transfer device'] : []),
    ...(hasBank && site.equipmentLowestC === undefined ? ['how cold it gets where the battery stands'] : []),
    ...(hasBank && stack.chargeCurrentA === undefined ? ['the charge setting of each unit'] : []),
    ...(hasBank && !chargeShareOf(compiled).known ? ['how the modules share the charging current'] : []),
  ];
}

/**
 * The largest charging power of each unit, W, that with the load keeps both ratings of the set at their loading target (kVA on each
 * line it reaches, kW in all), the port and what stands ahead of it, the largest charging currents of inverters, bank and modules.
 */
export function largestChargeW(
  set: CompiledGenerator,
  compiled: CompiledStack,
  installation: Installation,
): LargestCharge {
  const { generator, type } = set;
  const given = all({
    type,
    rating: generatorRating(set),
    inverter: compiled.type,
    supply: installation.supply,
    board: generatorBoard(compiled),
    capability: capabilityWithout(compiled),
    lineVoltageV: installation.lineVoltageV,
  });
  if (!given.known) return { refused: 'not everything is known that a setting follows from.' };
  const { supply, board, inverter, capability, rating, lineVoltageV } = given.value;
  if (board.continuous.missing.length > 0)
    return { refused: 'the load is not known in full, so no setting can be worked out.' };
  const { engineW } = rating;
  if (!engineW.known) return { refused: 'its rated power factor is not known, so its kW are not.' };
  const reached = generatorLines(generator, given.value.type, supply);
  if (!reached.known) return { refused: 'say which line it supplies.' };
  const battery = batteryCeilings(compiled, inverter);
  if (!battery.known) return { refused: 'the battery is not known, so its limits are not.' };
  const cold = coldRefusal(compiled);
  if (cold !== undefined) return { refused: cold };

  const target = installation.defaults.generatorLoading.value;
  const sharing = installation.defaults.currentSharingTolerance.value;
  const atPort = generator.connection === 'generator-port';
  const ports: Ports = { compiled, inverter, capability, lineVoltageV, sharing, atPort };
  const shareOf = (line: number): number => chargeShareOfLine(compiled, inverter, capability, line);
  const charged = reached.value.filter((line) => shareOf(line) > 0);
  if (charged.length === 0) return { refused: 'no inverter stands on the lines it reaches.' };
  const loadOn = (line: number): Complex => board.continuous.knownPart[line] ?? ZERO;
  const loadW = reached.value.reduce((sum, line) => sum + loadOn(line).re, 0);
  const ceilings: Ceiling[] = [
    ...charged.flatMap((line) => [
      {
        perUnitW: roomW(loadOn(line), rating.perLineVa * target) / shareOf(line),
        setBy: `the kVA of the set on ${supply.lines[line] ?? ''}`,
      },
      ...portCeilings(ports, loadOn(line), line),
    ]),
    {
      perUnitW: (engineW.value * target - loadW) / charged.reduce((sum, line) => sum + shareOf(line), 0),
      setBy: 'the kW of its engine',
    },
    ...battery.value,
  ];
  const least = ceilings.reduce((a, b) => (b.perUnitW < a.perUnitW ? b : a));
  if (least.perUnitW < 0)
    return {
      refused: `the load alone is more than ${least.setBy} should give; shed some of it before charging.`,
    };
  return {
    perUnitW: Math.floor(least.perUnitW / STEP_W + 1e-9) * STEP_W,
    setBy: least.setBy,
    notHeld: notHeldOf(compiled, inverter, atPort),
  };
}
