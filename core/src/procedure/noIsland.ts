import type { CompiledStack } from '../installation/installation.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation } from './specs.ts';

/** A set that makes no AC by itself is not tested in island: the paper says so, and that it stays dead is looked at. */
export function noIslandStep({ stack }: CompiledStack): ProcedureStep {
  return {
    id: `no-island-${stack.id}`,
    section: 'island',
    title: `${stack.name} makes no island`,
    instructions: [
      'It sits on the DC side or has no backup outlet: without the grid it backs up nothing by itself.',
      'With the grid isolator open and locked, prove that its AC side is dead. There are no load steps to make.',
    ],
    cautions: ['Its battery and DC conductors stay live.'],
    readings: [confirmation('dead', 'AC side proved dead with the grid isolator open')],
  };
}
