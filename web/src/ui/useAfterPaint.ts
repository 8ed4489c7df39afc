import { useEffect, useState } from 'react';

/**
 * A value one picture later: what answers a key at once is on the screen before what may follow is worked on. A deferred value
 * alone would do that work before the picture.
 */
export function useAfterPaint<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => setShown(() => value), 0);
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [value]);
  return shown;
}
