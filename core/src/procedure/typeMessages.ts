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

/** At which place of the test each moment comes. */
type Moments = ReadonlyMap<MessageMoment, number>;

const momentOf = (step: ProcedureStep, stackId: string): MessageMoment | undefined =>
  MESSAGE_MOMENTS.find((moment) => step.id === `${moment}-${stackId}` || step.id === moment);

/**
 * Puts into each step of a set what its types show then: what is right, what is normal now and must be gone later, and what means stop.
 * Where it must be gone, that is read. A message whose end never comes in this installation is told to stay,
 * and one whose end comes before it not to come.
 */
export function withMessages(
  steps: readonly ProcedureStep[],
  stacks: readonly CompiledStack[],
): ProcedureStep[] {
  const sets = stacks.map((compiled) => {
    const { id, name } = compiled.stack;
    const moments = new Map(
      steps.flatMap((step, at): [MessageMoment, number][] => {
        const moment = momentOf(step, id);
        return moment === undefined ? [] : [[moment, at]];
      }),
    );
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
        if (message.until === moment && isEndedBy(message, moments))
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

/** Whether a message comes, and its end after it, in the order of this installation. */
function isEndedBy({ at, until }: TypeMessage, moments: Moments): boolean {
  const [from, to] = [moments.get(at), until === undefined ? undefined : moments.get(until)];
  return from !== undefined && to !== undefined && to > from;
}

function lineOf(message: TypeMessage, shows: string, moments: Moments): string {
  const { means, until } = message;
  if (means === 'right') return `Right here: ${shows}.`;
  if (means === 'stop' || until === undefined) return `Stop here: ${shows}.`;
  if (isEndedBy(message, moments)) return `Normal now, and gone once ${MOMENT_WORDS[until]}: ${shows}.`;
  // In the order of this type its end has come before it could.
  return moments.has(until)
    ? `Not to be seen here, since ${MOMENT_WORDS[until]}: ${shows}.`
    : `Normal from here on, since nothing in this installation ends it: ${shows}.`;
}
