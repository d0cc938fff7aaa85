import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';

/** The key that seals credentials, made of the installation's own text (`NAME_LEDGER_KEY`); `null` without one. */
export function keyFrom(text: string | undefined): Buffer | null {
  return text ? createHash('sha256').update(text).digest() : null;
}

const IV = 12;
const TAG = 16;

/** Seals a text with AES-256-GCM: what comes out can neither be read nor changed without the key. */
export function seal(key: Buffer, text: string): Buffer {
  const iv = randomBytes(IV);
  const cipher = createCipheriv('aes-256-gcm', key, iv);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]);
}

/** Opens what `seal` made with the same key. Answers `null` when the key is another or the octets were changed. */
export function unseal(key: Buffer, sealed: Buffer): string | null {
  try {
    const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, IV));
    decipher.setAuthTag(sealed.subarray(IV, IV + TAG));
    return Buffer.concat([decipher.update(sealed.subarray(IV + TAG)), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}
