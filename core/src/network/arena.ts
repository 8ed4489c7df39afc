/**
 * One stretch of memory that typed arrays are cut from. Making an array of its own for each list costs more than solving a small
 * network does. Cut pieces are zero, live as long as the whole, and are never given back one by one.
 */
export class Arena {
  private readonly buffer: ArrayBuffer;
  private used = 0;

  /** @param words how many 8-byte words it holds; whole numbers take half a word each */
  constructor(words: number) {
    this.buffer = new ArrayBuffer(words * 8);
  }

  floats(count: number): Float64Array {
    return new Float64Array(this.buffer, this.take(count), count);
  }

  wholes(count: number): Int32Array {
    return new Int32Array(this.buffer, this.take((count + 1) >> 1), count);
  }

  private take(words: number): number {
    const at = this.used;
    this.used += words * 8;
    return at;
  }
}
