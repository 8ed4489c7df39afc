import { problemsFrom, type Result } from '@bastion/core';
import { z } from 'zod';
import { RefusalError } from '../errors.ts';

/** One step from a format to the next. The name says what changed. */
export interface StoredStep {
  readonly name: string;
  readonly up: (value: unknown) => unknown;
}

const wrapped = z.strictObject({ format: z.number().int().positive(), value: z.unknown() });

/**
 * A kind of value that the database keeps as text, with the number of its format in it. Text of an older format is brought up to the
 * present one when it is read; text of a newer one is told. Format 0 is the value alone, as it was kept before formats were numbered.
 */
export class StoredKind<T> {
  readonly name: string;
  readonly steps: readonly StoredStep[];
  private readonly schema: z.ZodType<T>;

  constructor(name: string, schema: z.ZodType<T>, steps: readonly StoredStep[]) {
    this.name = name;
    this.schema = schema;
    this.steps = steps;
  }

  write(value: T): string {
    return JSON.stringify({ format: this.steps.length, value });
  }

  /** What a text holds, or why it cannot be read. */
  read(text: string): Result<T> {
    const refuse = (message: string): Result<T> => ({ ok: false, problems: [{ path: [], message }] });
    let found: unknown;
    try {
      found = JSON.parse(text);
    } catch {
      return refuse(`what is stored of this ${this.name} is damaged`);
    }
    const stamped = wrapped.safeParse(found);
    const { format, value } = stamped.success ? stamped.data : { format: 0, value: found };
    if (format > this.steps.length)
      return refuse(
        `this ${this.name} was stored in format ${format}; this version reads up to ${this.steps.length}`,
      );
    const read = this.schema.safeParse(this.steps.slice(format).reduce((now, { up }) => up(now), value));
    return read.success ? { ok: true, value: read.data } : { ok: false, problems: problemsFrom(read.error) };
  }

  /** The same, for one that a request is about: it fails with its reason. */
  mustRead(text: string): T {
    const read = this.read(text);
    if (!read.ok) throw new RefusalError('STORED_UNREADABLE', { problems: read.problems.slice(0, 20) });
    return read.value;
  }
}
