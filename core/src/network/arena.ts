/**
 * One stretch of memory that typed arrays are cut from. Making an array of its own for each list costs more than solving a small
 * network does. Cut pieces are zero, live as long as the whole, and are never given back one by one.
 */
export class Arena {
  private readonly buffer: ArrayBuffer;
  private used = 0;

  /** @param buffer memory that is all zero */
  constructor(buffer: ArrayBuffer) {
    this.buffer = buffer;
  }

  /** An arena of its own. @param words how many 8-byte words it holds; whole numbers take half a word each */
  static ofWords(words: number): Arena {
    return new Arena(new ArrayBuffer(words * BYTES));
  }

  floats(count: number): Float64Array {
    return new Float64Array(this.buffer, this.take(count), count);
  }

  wholes(count: number): Int32Array {
    return new Int32Array(this.buffer, this.take((count + 1) >> 1), count);
  }

  private take(words: number): number {
    const at = this.used;
    this.used += words * BYTES;
    return at;
  }
}

const BYTES = 8;

/** The memory of the piece of work before, lent to the next: new memory costs as much as solving what is put into it. */
let spare: ArrayBuffer | undefined;

/**
 * Runs a piece of work on lent memory. Nothing that is cut from it may leave the work: the next one writes over it.
 * @param words how many 8-byte words it needs
 */
export function onLentArena<T>(words: number, work: (arena: Arena) => T): T {
  const isEnough = spare !== undefined && spare.byteLength >= words * BYTES;
  const buffer = isEnough && spare !== undefined ? spare : new ArrayBuffer(words * BYTES);
  // Work within this work takes memory of its own.
  spare = undefined;
  try {
    if (isEnough) new Float64Array(buffer, 0, words).fill(0);
    return work(new Arena(buffer));
  } finally {
    spare = buffer;
  }
}
