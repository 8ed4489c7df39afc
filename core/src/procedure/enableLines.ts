import type { CompiledStack, Installation } from '../installation/installation.ts';

/** What has to be so at the enable input before the set runs. */
export function enableLines(
  { network }: Pick<Installation, 'network'>,
  { stack, type }: CompiledStack,
): string[] {
  const input = type.known ? type.value.enableInput : undefined;
  if (input === undefined || input === 'none' || !network.known) return [];
  const part = network.value.parts.find(({ id }) => id === `enable ${stack.id}`);
  const isThere = part?.fitted?.known === true ? part.fitted.value === 'yes' : undefined;
  if (isThere === undefined)
    return ['Look at the enable input: a switch, a bridge or neither, as the manual of the type wants it.'];
  if (!isThere)
    return [
      input === 'closed-runs'
        ? 'The enable input is bridged: look that the bridge sits in its terminal.'
        : 'Nothing is joined to the enable input: look that it is so.',
    ];
  return [
    `${input === 'closed-runs' ? 'Close' : 'Open'} the enable switch last. It stops the inverters again and parts nothing: their terminals stay live.`,
  ];
}
