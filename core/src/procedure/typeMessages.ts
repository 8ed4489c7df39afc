import { type MessageMoment, MESSAGE_MOMENTS, type TypeMessage } from '../catalogue/messages.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation } from './specs.ts';

const MOMENT_WORDS: Readonly<Record<MessageMoment, string>> = {
  wake: 'the battery is awake',
  'battery-on': 'the battery is closed',
  'inverter-on': 'all inverters are on',
  firmware: 'the firmware is loaded',
  settings: 'the settings are made',
  'grid-on': 'the grid is closed',
  'self-check': 'the self-check is through',
  'pv-on': 'the strings are closed',
  'live-on-grid': 'it runs on the grid',
  island: 'it runs as an island',
  'black-start': 'it has started by itself',
};

/** One message of a type, with who shows it. */
interface Told {
  readonly key: string;
  readonly who: string;
  readonly message: TypeMessage;
}

function messagesOf({ stack, type, batteryTypes }: CompiledStack): Told[] {
  const told = (who: string, key: string, list: readonly TypeMessage[] | undefined): Told[] =>
    (list ?? []).map((message, index) => ({ key: `${key}-${index + 1}`, who, message }));
  const { bank } = stack;
  const battery =
    typeof bank === 'object' && bank.batteryTypeId !== undefined
      ? batteryTypes[bank.batteryTypeId]
      : undefined;
  return [
    ...told('the inverter', 'inverter', type.known ? type.value.messages : undefined),
    ...told('the battery', 'battery', battery?.messages),
  ];
}

const momentOf = (step: ProcedureStep, stackId: string): MessageMoment | undefined =>
  MESSAGE_MOMENTS.find((moment) => step.id === `${moment}-${stackId}` || step.id === moment);

/**
 * Puts into each step of a set what its types show then: what is right, what is normal now and must be gone later, and what means stop.
 * Where it must be gone, that is read. A message whose end never comes in this installation is told to stay.
 */
export function withMessages(
  steps: readonly ProcedureStep[],
  stacks: readonly CompiledStack[],
): ProcedureStep[] {
  const sets = stacks.map((compiled) => {
    const { id, name } = compiled.stack;
    const moments = new Set(steps.flatMap((step) => momentOf(step, id) ?? []));
    return { id, name, moments, told: messagesOf(compiled) };
  });
  return steps.map((step) => {
    const lines: string[] = [];
    const gone: ProcedureStep['readings'] = [];
    for (const { id, name, moments, told } of sets) {
      const moment = momentOf(step, id);
      if (moment === undefined) continue;
      const of = sets.length > 1 && step.id === moment ? ` of ${name}` : '';
      for (const { key, who, message } of told) {
        const shows = `${who}${of} shows “${message.text}”`;
        if (message.at === moment) lines.push(lineOf(message, shows, moments));
        if (message.until === moment && moments.has(message.at))
          gone.push(confirmation(`gone-${id}-${key}`, `“${message.text}” is gone from ${who}${of}`));
      }
    }
    return lines.length + gone.length === 0
      ? step
      : {
          ...step,
          instructions: [...step.instructions, ...lines],
          readings: [...step.readings, ...gone],
        };
  });
}

function lineOf({ means, until }: TypeMessage, shows: string, moments: ReadonlySet<MessageMoment>): string {
  if (means === 'right') return `Right here: ${shows}.`;
  if (means === 'stop') return `Stop here: ${shows}.`;
  return until !== undefined && moments.has(until)
    ? `Normal now, and gone once ${MOMENT_WORDS[until]}: ${shows}.`
    : `Normal from here on, since nothing in this installation ends it: ${shows}.`;
}
