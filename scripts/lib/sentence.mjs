/** A failure with a sentence for the person at the terminal; anything else is a fault of ours and keeps its stack. */
export class Sentence extends Error {}

/** Runs a script's main function; ends with a clear sentence and a non-zero code when something it needs cannot be had. */
export async function runMain(main) {
  try {
    await main();
  } catch (error) {
    console.error(error instanceof Sentence ? error.message : error);
    process.exit(1);
  }
}
