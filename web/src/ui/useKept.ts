import { useCallback, useState } from 'react';
import type { z } from 'zod';

const PREFIX = 'bastion.half-typed.';

function read<T>(key: string, schema: z.ZodType<T>): T | undefined {
  try {
    const text = sessionStorage.getItem(PREFIX + key);
    if (text === null) return undefined;
    const parsed = schema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : undefined;
  } catch {
    return undefined;
  }
}

function write(key: string, value: unknown): void {
  try {
    if (value === undefined) sessionStorage.removeItem(PREFIX + key);
    else sessionStorage.setItem(PREFIX + key, JSON.stringify(value));
  } catch {
    // A full or refused store loses what is half typed on a reload, and nothing else.
  }
}

/**
 * State of a form that is not taken over yet: it survives a link, Back and a reload of the window. `forget` starts it anew, once it
 * is taken over or given up.
 */
export function useKept<T>(
  key: string,
  schema: z.ZodType<T>,
  initial: T,
): readonly [T, (next: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => read(key, schema) ?? initial);
  const set = useCallback(
    (next: T): void => {
      write(key, next);
      setValue(next);
    },
    [key],
  );
  const forget = useCallback((): void => {
    write(key, undefined);
    setValue(initial);
  }, [key, initial]);
  return [value, set, forget];
}
