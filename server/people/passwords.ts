/** Passwords and PINs as they are kept: argon2id, with the cost that OWASP's Password Storage Cheat Sheet asks for. */
import { randomInt } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashed = (secret: string): Promise<string> => hash(secret, COST);

/** Takes as long for somebody who is not there, so that nobody learns by it who is. @param kept null: there is none */
export async function isRight(kept: string | null | undefined, typed: string): Promise<boolean> {
  nobody ??= hashed('nobody');
  const right = await verify(kept ?? (await nobody), typed);
  return right && Boolean(kept);
}
let nobody: Promise<string> | undefined;

/** Without those that are mistaken for one another when read out. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const [GROUPS, IN_GROUP] = [3, 4];

/** A password to be passed on by word of mouth, about 59 bits. */
export const madeUp = (): string =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: IN_GROUP }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-');
