import type { z } from 'zod';

/** A place in the document, from the root: property names, and the ids of entities (or indexes where there is no id). */
export type Path = readonly (string | number)[];

/**
 * Something wrong with a document: a sentence a person can act on, and where it is.
 * Problems are returned, never thrown.
 */
export interface Problem {
  readonly path: Path;
  readonly message: string;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] };

/** `circuits[3].items[0].runningW`: the notation used on the command line and in messages. */
export function formatPath(path: Path): string {
  let text = '';
  for (const part of path) {
    text += typeof part === 'number' ? `[${part}]` : text === '' ? part : `.${part}`;
  }
  return text === '' ? '(document)' : text;
}

type Issue = z.core.$ZodIssue;

function typeSentence(issue: Issue & { code: 'invalid_type' }): string {
  const input: unknown = issue.input;
  if (input === undefined)
    return `is missing; ${issue.expected === 'array' ? 'a list' : issue.expected === 'object' ? 'an object' : `a ${issue.expected}`} is needed here`;
  if (typeof input === 'number' && !Number.isFinite(input)) return 'is not a finite number';
  const shown =
    typeof input === 'string' ? `"${input.slice(0, 40)}"` : Array.isArray(input) ? 'a list' : typeof input;
  return `must be a ${issue.expected}, but is ${input === null ? 'null' : shown}`;
}

function boundSentence(issue: Issue & { code: 'too_small' | 'too_big' }): string {
  const bound = issue.code === 'too_small' ? issue.minimum : issue.maximum;
  if (issue.origin === 'array') {
    return issue.code === 'too_small' ? `needs at least ${String(bound)}` : `takes at most ${String(bound)}`;
  }
  if (issue.origin === 'string') {
    return issue.code === 'too_small' ? 'must not be empty' : `is longer than ${String(bound)} characters`;
  }
  const word =
    issue.code === 'too_small'
      ? issue.inclusive
        ? 'at least'
        : 'more than'
      : issue.inclusive
        ? 'at most'
        : 'less than';
  return `must be ${word} ${String(bound)}, but is ${String(issue.input)}`;
}

/** So many unknown fields are named; the rest are counted. */
const MOST_NAMED = 6;

function unknownFields(keys: readonly string[]): string {
  const named = keys
    .slice(0, MOST_NAMED)
    .map((key) => `"${key.slice(0, 60)}"`)
    .join(', ');
  const more = keys.length > MOST_NAMED ? ` and ${keys.length - MOST_NAMED} more` : '';
  return `has a field this format does not know: ${named}${more}`;
}

/** The sentence for one schema issue. Words are made here alone, from the issue's own fields. */
function sentenceFor(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return typeSentence(issue);
    case 'too_small':
    case 'too_big':
      return boundSentence(issue);
    case 'invalid_value':
      return `must be one of ${issue.values.map((value) => `"${String(value)}"`).join(', ')}, but is ${JSON.stringify(issue.input)}`;
    case 'unrecognized_keys':
      return unknownFields(issue.keys);
    case 'invalid_union':
      return `is none of the kinds allowed here`;
    case 'not_multiple_of':
      return `must be a whole number, but is ${String(issue.input)}`;
    case 'invalid_format':
    case 'invalid_key':
    case 'invalid_element':
    case 'custom':
      return issue.message;
  }
}

/** Turns the schema library's issues into problems of ours. */
export function problemsFrom(error: z.ZodError): Problem[] {
  return error.issues.map((issue) => ({
    path: issue.path.map((part) => (typeof part === 'symbol' ? part.toString() : part)),
    message: sentenceFor(issue),
  }));
}
