import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is just being put on paper: for what has to be drawn otherwise there. */
export function usePrinting(): boolean {
  const [isPrinting, setIsPrinting] = useState(false);
  useEffect(() => {
    // The paper is laid out as soon as the event is over: the change may not wait.
    const begin = (): void => flushSync(() => setIsPrinting(true));
    const end = (): void => setIsPrinting(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinting;
}
