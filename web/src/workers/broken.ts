export const BROKEN_WORDS =
  'The part of this page that works it out could not be run. Nothing was changed; load the page again and ask once more.';

/**
 * Fails when a worker cannot be loaded or breaks down. What it was asked would else never be answered, so every question to a worker
 * is raced against this.
 */
export function broken(worker: Worker): Promise<never> {
  const failure = new Promise<never>((_resolve, reject) => {
    const fail = (): void => reject(new Error(BROKEN_WORDS));
    worker.addEventListener('error', fail, { once: true });
    worker.addEventListener('messageerror', fail, { once: true });
  });
  // Whoever races it hears of it; after that nobody need.
  failure.catch(() => undefined);
  return failure;
}
