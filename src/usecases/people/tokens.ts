import { createHash, randomBytes } from 'node:crypto';

/** A token that nobody guesses: 256 bits. Only its hash is kept (ASVS 5 V7.2.3, V13.3). */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of a token: it holds so much chance that a plain hash is enough. */
export function hashOf(token: string): Buffer {
  return createHash('sha256').update(token).digest();
}
