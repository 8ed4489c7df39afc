import { hash, verify } from '@node-rs/argon2';
import { dictionary } from '@zxcvbn-ts/language-common';

/** Short ones are guessed whatever they are made of. */
const LEAST_LENGTH = 10;

const common = new Set(dictionary.passwords.map((word) => word.toLowerCase()));

/** Endings that people put after a common word to make it long enough. */
const bare = (password: string): string => password.toLowerCase().replace(/[\d!?.#@$*_-]+$/, '');

/** Why a password cannot be taken, as a sentence about it; undefined where nothing is against it. */
export function passwordProblem(password: string, about: readonly string[]): string | undefined {
  if (password.length < LEAST_LENGTH)
    return `has ${password.length} characters; it needs at least ${LEAST_LENGTH}`;
  if (new Set(password).size < 4) return 'repeats the same few characters';
  const plain = password.toLowerCase();
  if (common.has(plain) || (bare(plain).length >= 4 && common.has(bare(plain))))
    return 'is one of the passwords that are tried first everywhere';
  const own = about
    .flatMap((text) => text.toLowerCase().split(/[^\p{L}\d]+/u))
    .filter((word) => word.length >= 4)
    .find((word) => plain.includes(word) && password.length < word.length + 6);
  return own === undefined ? undefined : `is little more than “${own}”, which everybody here knows`;
}

export const hashPassword = (password: string): Promise<string> => hash(password);

/** A hash nobody has the password to: checked when an address is unknown, so that both answers take as long. */
const NOBODY = hash(`${Math.random()}`);

/** Whether a password belongs to a hash. Takes as long where there is none. */
export async function isPassword(
  passwordHash: string | null | undefined,
  password: string,
): Promise<boolean> {
  const right = await verify(passwordHash ?? (await NOBODY), password);
  return right && passwordHash !== null && passwordHash !== undefined;
}
