import type { Advice, AskedAdvice, Design } from '@bastion/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { CalledOff, runAdvice } from '../../workers/advice.ts';

export type AdviceState =
  | { readonly kind: 'none' }
  | { readonly kind: 'working'; readonly asked: AskedAdvice; readonly share: number }
  | { readonly kind: 'ready'; readonly asked: AskedAdvice; readonly advice: Advice; readonly design: Design }
  | { readonly kind: 'failed'; readonly message: string };

/** Advice worked out beside the page, with its progress; it can be called off at any moment. */
export function useAdvice() {
  const [state, setState] = useState<AdviceState>({ kind: 'none' });
  const running = useRef<AbortController>(undefined);
  const callOff = useCallback(() => running.current?.abort(), []);
  useEffect(() => callOff, [callOff]);
  const ask = useCallback(
    async (asked: AskedAdvice, design: Design): Promise<void> => {
      callOff();
      const control = new AbortController();
      running.current = control;
      setState({ kind: 'working', asked, share: 0 });
      try {
        const onProgress = (share: number): void => {
          if (!control.signal.aborted) setState({ kind: 'working', asked, share });
        };
        const advice = await runAdvice(asked, design, onProgress, control.signal);
        setState({ kind: 'ready', asked, advice, design });
      } catch (error) {
        // A newer question has set a state of its own already.
        if (running.current !== control) return;
        setState(
          error instanceof CalledOff
            ? { kind: 'none' }
            : {
                kind: 'failed',
                message: error instanceof Error ? error.message : 'It could not be worked out.',
              },
        );
      }
    },
    [callOff],
  );
  const close = useCallback(() => {
    callOff();
    setState({ kind: 'none' });
  }, [callOff]);
  const show = useCallback(
    (asked: AskedAdvice, advice: Advice, design: Design) =>
      setState({ kind: 'ready', asked, advice, design }),
    [],
  );
  return { state, ask, callOff, close, show };
}
