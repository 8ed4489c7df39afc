import type { BatteryDevice } from '../../installation/installation.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import { bankLimits } from '../../figures/bank/bankLimits.ts';
import { branchCurrents } from '../../figures/bank/branchCurrents.ts';
import { bankCircuitOf } from '../../figures/bank/ofSet.ts';
import { allowedMultiple } from '../../network/overload.ts';
import { all, type Known } from '../../values/known.ts';
import { formatNumber } from '../../words/quantity.ts';
import { type Check, type CheckContext, type Measurement, checkOf } from '../check.ts';
import { startCurrentStep } from '../support/bankSteps.ts';
import { eachStart } from '../support/eachStart.ts';
import type { StackCase } from '../support/eachLine.ts';
import { type StartCurrent, type StartCurrents, worstStart } from '../support/startCurrent.ts';
import { bankSubject } from '../support/subjects.ts';

type Currents = Exclude<StartCurrents, { kind: 'too-much' }>;

const dataOf = (
  start: StartCurrent,
  which: string,
): NonNullable<Measurement<'label' | 'needed' | 'volts' | 'which'>['data']> => ({
  which,
  label: start.label,
  needed: `for ${formatNumber(start.durationS)} s`,
  volts: `${formatNumber(start.volts)} V`,
});

const SOURCE = 'Rating of the device times the largest multiple that it holds for the length of the start.';

/** The device of the whole bank. */
function ofBank(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  currents: Currents,
): Measurement<'label' | 'needed' | 'volts' | 'which'> | undefined {
  const limitAt = (start: StartCurrent): Known<number | 'none'> | undefined =>
    bankLimits({
      site: context.installation.site,
      compiled: one.compiled,
      type: one.type,
      bank,
      evenUnits: start.evenUnits,
      spread: start.spread,
      durationS: start.durationS,
    }).find(({ key }) => key === 'breaker')?.amperes;
  // Where nothing limits it that is known, what is told is the start that draws most.
  const [most] = [...(currents.kind === 'solved' ? currents.starts : currents.most)].sort(
    (a, b) => b.amperes - a.amperes,
  );
  const limit = most && limitAt(most);
  if (most === undefined || limit === undefined || (limit.known && limit.value === 'none')) return undefined;
  const blank = { subject: bankSubject(one.compiled), unit: 'A' };
  if (!limit.known)
    return {
      ...blank,
      value: most.amperes,
      limit: undefined,
      missing: limit.missing,
      data: dataOf(most, 'the battery breaker'),
      working: () => ({ steps: [startCurrentStep(most)], inputs: [], source: SOURCE, notes: [] }),
    };
  const held = worstStart(
    currents,
    ({ amperes }) => amperes,
    (start) => {
      const found = limitAt(start);
      return found?.known === true && found.value !== 'none' ? found.value : NaN;
    },
  );
  return (
    held && {
      ...blank,
      value: held.start.amperes,
      limit: held.limit,
      missing: held.missing,
      data: dataOf(held.start, 'the battery breaker'),
      working: () => ({ steps: [startCurrentStep(held.start)], inputs: [], source: SOURCE, notes: [] }),
    }
  );
}

/**
 * What flows through one listed device during a start. Where it was not solved, at most what the hardest-working inverter draws, or the
 * whole bank gives.
 */
function throughDevice(one: StackCase, device: BatteryDevice, start: StartCurrent): number | undefined {
  if (start.share === undefined) return device.role === 'battery-unit' ? start.hardestUnitA : start.amperes;
  if (device.role === 'battery-unit')
    return start.share.taps.find(({ unitId }) => unitId === device.unitId)?.currentA;
  const circuit = bankCircuitOf(one.compiled);
  if (!circuit.known || typeof circuit.value === 'string') return undefined;
  const at = circuit.value.branches.findIndex(
    ({ kind, path }) => kind === 'device' && path.join('/') === device.path.join('/'),
  );
  const amperes = branchCurrents(circuit.value, start.share)[at];
  return amperes === undefined || Number.isNaN(amperes) ? undefined : Math.abs(amperes);
}

const ROLE_WORDS: Partial<Record<BatteryDevice['role'], string>> = {
  'battery-unit': 'the battery device of an inverter',
  'battery-group': 'the device of a group',
  'battery-module': 'the device of a module',
};

/** Of all listed devices of a kind, the one that a start brings nearest to what it holds. */
function ofRole(
  one: StackCase,
  role: BatteryDevice['role'],
  currents: Currents,
): Measurement<'label' | 'needed' | 'volts' | 'which'> | undefined {
  const devices = one.compiled.batteryDevices.filter(
    (device) => device.role === role && device.fitted !== 'none',
  );
  if (devices.length === 0) return undefined;
  const subject = bankSubject(one.compiled);
  const named = {
    ...subject,
    kind: 'part' as const,
    id: `${subject.id} ${role}`,
    label: subject.label,
    about: [...(subject.about ?? []), { kind: 'bank' as const, id: subject.id }],
  };
  const which = ROLE_WORDS[role] ?? 'a battery device';
  let worst: { start: StartCurrent; amperes: number; limit: number } | undefined;
  const missing = devices.flatMap(({ ratedA, timeCurrent }) => {
    const given = all({ ratedA, timeCurrent });
    return given.known ? [] : given.missing;
  });
  for (const device of devices)
    for (const start of currents.kind === 'solved' ? currents.starts : currents.most) {
      const given = all({ ratedA: device.ratedA, curve: device.timeCurrent });
      const amperes = throughDevice(one, device, start);
      if (!given.known || amperes === undefined) continue;
      const limit = given.value.ratedA * allowedMultiple(given.value.curve, start.durationS);
      if (worst === undefined || amperes / limit > worst.amperes / worst.limit)
        worst = { start, amperes, limit };
    }
  // What holds at the most that can flow holds; what does not is not known until it is solved.
  if (currents.kind === 'bounds' && worst !== undefined && worst.amperes > worst.limit) {
    missing.push(...currents.missing);
    worst = undefined;
  }
  if (worst === undefined && missing.length === 0) return undefined;
  const { start } = worst ?? {};
  return {
    subject: named,
    value: worst?.amperes,
    limit: worst?.limit,
    unit: 'A',
    missing,
    ...(start === undefined ? {} : { data: dataOf(start, which) }),
    working: () => ({
      steps: start === undefined ? [] : [startCurrentStep(start)],
      inputs: [],
      source: SOURCE,
      notes: [],
    }),
  };
}

/** Currents during starts against what the time–current curves of the battery devices hold for that long: each its own current. */
export const bankBreakerSurge: Check<'bank.breaker-surge'> = checkOf({
  id: 'bank.breaker-surge',
  title: 'Battery breaker during the largest start',
  family: 'bank',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: while {{label}} starts, {{which}} carries {{value}} {{needed}} at {{volts}}; it holds {{limit}}: over by {{margin}}.',
    tight:
      '{{subject}}: while {{label}} starts, {{which}} carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    within:
      '{{subject}}: while {{label}} starts, {{which}} carries {{value}} of {{limit}} {{needed}} at {{volts}}: {{margin}} left.',
    unknown: '{{subject}}: the battery devices during a start cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStart(bankBreakerSurge.id, context, (one, bank, currents) => [
      ofBank(context, one, bank, currents),
      ...(['battery-unit', 'battery-group', 'battery-module'] as const).map((role) =>
        ofRole(one, role, currents),
      ),
    ]),
});
