import { UniqueConstraintError } from 'sequelize';
import { z } from 'zod';

const deadlock = z.object({ original: z.object({ code: z.literal('ER_LOCK_DEADLOCK') }) });

/** Whether somebody else has written the same, or is just writing it. */
export const isTaken = (error: unknown): boolean =>
  error instanceof UniqueConstraintError || deadlock.safeParse(error).success;

const MOST_TRIES = 10;

/** Work that somebody else was faster at is done again on what they have written. */
export async function onceMore<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries += 1) {
    try {
      return await work();
    } catch (error) {
      if (!isTaken(error) || tries >= MOST_TRIES) throw error;
    }
  }
}
