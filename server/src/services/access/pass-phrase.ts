import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { z } from 'zod';

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(
  scrypt,
);

/** Source: OWASP, Password Storage Cheat Sheet, scrypt N = 2^17, r = 8, p = 1 (from memory). */
const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };
const KEY_LENGTH = 32;
const SHORTEST = 12;
const LONGEST = 200;

const storedSchema = z.object({ salt: z.string(), key: z.string() });
export type StoredPassPhrase = z.infer<typeof storedSchema>;

/** A sentence where it will not do. */
export const faultOfPassPhrase = (phrase: string): string | null =>
  phrase.length >= SHORTEST && phrase.length <= LONGEST
    ? null
    : `A pass phrase has ${SHORTEST} to ${LONGEST} characters: four or five words that belong to nobody are good.`;

export async function hashPassPhrase(phrase: string): Promise<StoredPassPhrase> {
  const salt = randomBytes(16);
  const key = await derive(phrase.normalize('NFKC'), salt, KEY_LENGTH, COST);
  return { salt: salt.toString('hex'), key: key.toString('hex') };
}

/** @param stored as hashed before; anything else is matched by nothing */
export async function isPassPhrase(phrase: string, stored: unknown): Promise<boolean> {
  const read = storedSchema.safeParse(stored);
  if (!read.success || phrase.length > LONGEST) return false;
  const expected = Buffer.from(read.data.key, 'hex');
  const key = await derive(phrase.normalize('NFKC'), Buffer.from(read.data.salt, 'hex'), KEY_LENGTH, COST);
  return key.length === expected.length && timingSafeEqual(key, expected);
}
