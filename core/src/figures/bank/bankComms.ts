import { bankOfSet } from './ofSet.ts';
import type { BatteryType } from '../../catalogue/batteryType.ts';
import { all, field, type Known, known } from '../../values/known.ts';
import type { BankComms } from '../../installation/facts.ts';
import { fittedModules } from './bank.ts';
import type { Bank } from '../../installation/facts.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { pileReasons } from './piles.ts';
import { followLinks, type Plugged } from '../../installation/plugged.ts';

export const HOST = 'host';

/** The battery bus of a closed loop, held against the rule of the battery type. */
export interface CompiledComms {
  readonly comms: BankComms;
  readonly type: BatteryType;
  readonly plugged: Plugged;
  /** Modules in the order the bus passes them; undefined while it is not one line. */
  readonly order: readonly string[] | undefined;
}

export function moduleName({ stack }: CompiledStack, id: string): string {
  if (id === HOST) return 'the inverter that holds the bus';
  const modules = typeof stack.bank === 'object' ? stack.bank.modules : [];
  return `module ${modules.findIndex((module) => module.id === id) + 1}`;
}

/** The comms of a bank, closed or open; undefined where there is no bank. */
export function commsOf({ stack }: CompiledStack): Known<BankComms> | undefined {
  const { bank } = stack;
  return typeof bank === 'object' ? field(bank.comms, 'stacks', stack.id, 'bank', 'comms') : undefined;
}

/** Fitted modules that belong on the battery bus. */
export function onBus({ stack: { bank } }: CompiledStack): Bank['modules'] {
  if (typeof bank !== 'object') return [];
  const off = new Set(bank.comms?.offBus);
  return fittedModules(bank).filter(({ id }) => !off.has(id));
}

/**
 * Follows the battery bus: from the inverter's battery port to the host port of the first module, then from module to module by
 * the ports of the type, one line without branches. Undefined for an open loop: there is no bus.
 */
export function closedComms(compiled: CompiledStack): Known<CompiledComms> | undefined {
  const bank = bankOfSet(compiled);
  const comms = commsOf(compiled);
  if (comms === undefined || (comms.known && comms.value.loop === 'open')) return undefined;
  const given = all({
    comms,
    inverter: compiled.type,
    bank: bank.known && bank.value === 'none' ? known(undefined) : bank,
  });
  if (!given.known) return given;
  const type = given.value.bank === 'none' ? undefined : given.value.bank?.type;
  if (type === undefined) return undefined;
  const { inverter } = given.value;
  const rules = all({
    chain: field(type.commsChain, 'types', type.id, 'commsChain'),
    port: field(inverter.batteryCommsPort, 'types', inverter.id, 'batteryCommsPort'),
  });
  if (!rules.known) return rules;
  const { chain, port } = rules.value;
  const links = given.value.comms.links.map(({ from, fromPort, to, toPort }) => ({
    fromId: from,
    fromPort,
    toId: to,
    toPort,
  }));
  const members = [HOST, ...onBus(compiled).map(({ id }) => id)];
  // The first cable has ports of its own: they are held against their own rule and then stand as kept.
  const toFirst = followLinks(
    members.slice(0, 1),
    links.filter((link) => link.fromId === HOST),
    { fromPort: port, toPort: chain.hostPort, shape: 'line' },
    (id) => moduleName(compiled, id),
  );
  const asChain = links.map((link) =>
    link.fromId === HOST ? { ...link, fromPort: chain.fromPort, toPort: chain.toPort } : link,
  );
  const along = followLinks(members, asChain, { ...chain, shape: 'line' }, (id) => moduleName(compiled, id));
  const reasons = [...new Set([...toFirst.reasons, ...along.reasons])];
  const startsAtHost = along.order?.[0] === HOST;
  if (along.order !== undefined && !startsAtHost) reasons.push('the bus does not begin at the inverter');
  const order = startsAtHost ? along.order.slice(1) : undefined;
  const piles = pileReasons(onBus(compiled), order ?? [], type, {
    bank: ['stacks', compiled.stack.id, 'bank'],
    nameOf: (id) => moduleName(compiled, id),
  });
  // What is wrong already is said, whatever else is not known.
  if (!piles.known && reasons.length === 0) return piles;
  return known({
    comms: given.value.comms,
    type,
    plugged: { ...along, reasons: [...reasons, ...(piles.known ? piles.value : [])] },
    order,
  });
}
