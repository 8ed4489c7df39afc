import { startTransition, useEffect, useState } from 'react';

/**
 * How many of some parts of a page are there by now: one more after each picture, until all are. What is long is drawn bit by bit, and a
 * key is answered in between.
 */
export function useStaged(all: number): number {
  const [shown, setShown] = useState(0);
  useEffect(() => {
    if (shown >= all) return;
    const timer = setTimeout(() => startTransition(() => setShown(shown + 1)), 0);
    return () => clearTimeout(timer);
  }, [shown, all]);
  return shown;
}
