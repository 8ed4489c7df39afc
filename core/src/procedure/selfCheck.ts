import type { CompiledStack } from '../installation/installation.ts';
import type { ProcedureStep } from './schema.ts';
import { confirmation } from './specs.ts';

/** What a type proves of itself once all its sources are there. */
export function selfCheckStep({ stack, type }: CompiledStack): ProcedureStep[] {
  const mostS = type.known ? type.value.selfCheckS : undefined;
  if (typeof mostS !== 'number') return [];
  return [
    {
      id: `self-check-${stack.id}`,
      section: 'power-up',
      title: `${stack.name}: self-check`,
      instructions: [
        'The self-check comes here because it needs battery and, where there is one, the grid, and nothing may draw meanwhile.',
        stack.units.length > 1
          ? 'Start it in the menu of each unit, one after the other, and take the longest time.'
          : 'Start it in the menu of the unit.',
        'Stop here: it ends with a fault, or does not end. A check that was broken off proves nothing.',
      ],
      cautions: ['It may switch relays and outputs by itself: nobody works on the outputs meanwhile.'],
      readings: [
        {
          id: 'self-check-s',
          label: 'Time it took',
          unit: 's',
          kind: 'number',
          instrument: 'stopwatch',
          expected: { low: 0, high: mostS },
          missing: [],
        },
        confirmation('self-check', 'Every unit reports its self-check as passed'),
      ],
    },
  ];
}
