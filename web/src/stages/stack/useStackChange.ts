import type { Bank, Problem, Stack } from '@bastion/core';
import { useJob } from '../../state/job.ts';
import { stackIn } from './stackEdits.ts';

/** Changes one stack, or its bank, as one step that can be undone. */
export function useStackChange(stackId: string) {
  const change = useJob((store) => store.change);
  const changeStack = (label: string, recipe: (stack: Stack) => void): readonly Problem[] =>
    change(label, (draft) => {
      const target = stackIn(draft, stackId);
      if (target !== undefined) recipe(target);
    });
  const changeBank = (label: string, recipe: (bank: Bank) => void): readonly Problem[] =>
    changeStack(label, ({ bank }) => {
      if (typeof bank === 'object') recipe(bank);
    });
  return { changeStack, changeBank };
}
