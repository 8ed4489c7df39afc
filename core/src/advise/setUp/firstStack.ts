import type { FirstValue } from '../../design/firstValues.ts';
import { planBus } from '../wiring.ts';
import { leadForDevice } from './conductors.ts';
import { type Kit, roundDown } from './kit.ts';

/** Charging from grid or generator to begin with, W of each unit, and the share of its rating that it may be. */
const FIRST_CHARGE_W = 1000;
const FIRST_CHARGE_SHARE = 0.25;
/** From the AC output of a unit to where the units join, m. */
const FIRST_AC_LEAD_M = 2;
/** What that lead leaves above the output current. */
const LEAD_ROOM = 1.1;

/** What each inverter may charge with, A: its own limit, or its share of what the modules take. */
function chargeA({ inverter, bank, stack }: Kit): number | undefined {
  if (bank === undefined) return undefined;
  const share = (bank.type.chargeA * bank.inParallel) / (bank.isOwn ? 1 : stack.units.length);
  return Math.min(inverter.maxChargeA, roundDown(share, 1));
}

/** Settings of a set, and the cables of its parallel bus by the rule of the type. */
export function settingValues(kit: Kit): FirstValue[] {
  const { stack, inverter, generator, site } = kit;
  const path = ['stacks', stack.id];
  const setting = chargeA(kit);
  const watts = roundDown(Math.min(FIRST_CHARGE_W, inverter.ratedW * FIRST_CHARGE_SHARE), 50);
  const bus = planBus(stack, inverter);
  const values: FirstValue[] = [{ path: [...path, 'hostUnitId'], value: stack.units[0]?.id ?? '' }];
  if (setting !== undefined) {
    values.push({ path: [...path, 'chargeCurrentA'], value: setting });
    if (site.grid !== 'none') values.push({ path: [...path, 'gridChargeW'], value: watts });
    if (generator?.connection === 'generator-port')
      values.push({ path: [...path, 'generatorChargeW'], value: watts });
  }
  if (inverter.neutralEarthRelay === 'external-kit')
    values.push({ path: [...path, 'relayKit'], value: 'fitted' });
  if (bus !== undefined)
    values.push(
      { path: [...path, 'busLinks'], value: bus.busLinks },
      { path: [...path, 'terminated'], value: [...bus.terminated] },
    );
  return values;
}

/** AC leads of units in parallel: equal, and as thick as the output current asks for. */
export function acLeadValues({ stack, inverter, site }: Kit): FirstValue[] {
  if (stack.units.length < 2) return [];
  // A split-phase unit states its voltage line to line.
  const outputA =
    inverter.ratedVa /
    (inverter.nativeLines === 2 ? inverter.outputV : inverter.nativeLines * inverter.outputV);
  const areaMm2 = leadForDevice(site.codeProfile, outputA * LEAD_ROOM, site.equipmentHighestC);
  const lead = { lengthM: FIRST_AC_LEAD_M, ...(areaMm2 === undefined ? {} : { areaMm2 }) };
  return stack.units.flatMap(({ id }) => {
    const path = ['stacks', stack.id, 'units', id];
    return [
      { path: [...path, 'acLead'], value: lead },
      { path: [...path, 'ownAcDevice'], value: 'yes' },
    ];
  });
}
