import { randomInt } from 'node:crypto';
import { generateSecret, generateURI, verify } from 'otplib';
import type { Instant } from '@/core/time';

/** A new secret for the codes of an authenticator app (RFC 6238): 160 bits, in base32. */
export const newCodeSecret = (): string => generateSecret({ length: 20 });

/** The address that an authenticator app reads from a picture. */
export const codeAddress = (secret: string, name: string): string =>
  generateURI({ issuer: 'Name Ledger', label: name, secret });

/** The step of 30 seconds that a code is of, within a step to either side of `asOf`; `null` for a code that does not fit. */
export async function stepOfCode(secret: string, code: string, asOf: Instant): Promise<number | null> {
  const token = code.replace(/\s/g, '');
  if (!/^\d{6}$/.test(token)) return null;
  const result = await verify({ secret, token, epoch: Math.floor(asOf / 1000), epochTolerance: 30 });
  return result.valid && 'timeStep' in result ? result.timeStep : null;
}

/** No letters that are taken for others. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const CODES = 10;

/** Ten codes for when everything else is lost, each good once: over 70 bits each. */
export function newRecoveryCodes(): string[] {
  return Array.from({ length: CODES }, () =>
    Array.from(
      { length: 15 },
      (_, i) => `${i > 0 && i % 5 === 0 ? '-' : ''}${LETTERS[randomInt(LETTERS.length)]}`,
    ).join(''),
  );
}

/** A recovery code as it is compared: however it was typed. */
export const plainRecoveryCode = (typed: string): string => typed.toLowerCase().replace(/[^a-z0-9]/g, '');
