import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes, scrypt } from 'node:crypto';

/**
 * The key of an installation, made of its own text (`NAME_LEDGER_KEY`). What comes out of the text is slow to make, so that a
 * typed one cannot be guessed through; it is made once for each salt and kept in this process.
 */
export interface SealKey {
  /** Names the key, and tells nothing of it: stands in front of everything it has sealed. */
  id(): Promise<string>;
  derive(salt: Buffer): Promise<Buffer>;
  /** The key of the shop: it opens what the shop has sealed, and nothing else (NIST SP 800-108, by HKDF of RFC 5869). */
  forShop(): SealKey;
  /** What the first version of sealing used. Only to open what it has left behind. */
  readonly legacy: Buffer;
}

const VERSION = 2;
const ID = 8;
const SALT = 16;
const IV = 12;
const TAG = 16;
/** 32 MB and some 80 ms for each guess. Source: RFC 7914 section 2, OWASP password storage (N = 2^15). */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 } as const;
const ID_SALT = Buffer.from('name-ledger key id');

const slow = (text: string, salt: Buffer, length: number) =>
  new Promise<Buffer>((resolve, reject) =>
    scrypt(text, salt, length, COST, (error, key) => (error ? reject(error) : resolve(key))),
  );

const made = new Map<string, SealKey>();
/** One salt for everything that this process seals. */
const ownSalt = randomBytes(SALT);

/** The key made of a text; `null` without one. */
export function keyFrom(text: string | undefined): SealKey | null {
  if (!text) return null;
  const known = made.get(text);
  if (known) return known;
  const derived = new Map<string, Promise<Buffer>>();
  const keep = (salt: Buffer, length: number) => {
    const name = salt.toString('hex');
    const key = derived.get(name) ?? slow(text, salt, length);
    derived.set(name, key);
    return key;
  };
  const key: SealKey = {
    id: async () => (await keep(ID_SALT, ID)).toString('hex'),
    derive: (salt) => keep(salt, 32),
    forShop: () => keyFrom(shopKeyText(text)) as SealKey,
    legacy: createHash('sha256').update(text).digest(),
  };
  made.set(text, key);
  return key;
}

/** The text of the shop's key. Who has it cannot come back to the installation's. */
export function shopKeyText(text: string): string {
  return Buffer.from(hkdfSync('sha256', text, '', 'name-ledger shop', 32)).toString('base64url');
}

/**
 * Seals a text with AES-256-GCM (NIST SP 800-38D): it can neither be read nor changed without the key, nor be moved to another
 * place, which `place` names (`account 7 link`). Layout: version, key id, salt, nonce, tag, text.
 */
export async function seal(key: SealKey, place: string, text: string): Promise<Buffer> {
  const head = Buffer.concat([Buffer.from([VERSION]), Buffer.from(await key.id(), 'hex'), ownSalt]);
  const iv = randomBytes(IV);
  const cipher = createCipheriv('aes-256-gcm', await key.derive(ownSalt), iv);
  cipher.setAAD(Buffer.concat([head, Buffer.from(place)]));
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([head, iv, cipher.getAuthTag(), sealed]);
}

/** The id of the key that something was sealed with; `null` for what the first version sealed, which named none. */
export function sealedWith(sealed: Buffer): string | null {
  return sealed[0] === VERSION && sealed.length >= 1 + ID + SALT + IV + TAG
    ? sealed.subarray(1, 1 + ID).toString('hex')
    : null;
}

/** Opens what `seal` made for the same place. `null` when key or place is another, or the octets were changed. */
export async function unseal(key: SealKey, place: string, sealed: Buffer): Promise<string | null> {
  if (sealedWith(sealed) !== (await key.id())) return openFirst(key, sealed);
  const head = sealed.subarray(0, 1 + ID + SALT);
  const rest = sealed.subarray(head.length);
  const salt = Buffer.from(head.subarray(1 + ID));
  return open(await key.derive(salt), rest, Buffer.concat([head, Buffer.from(place)]));
}

/** The first version: no key id, no place. */
function openFirst(key: SealKey, sealed: Buffer): string | null {
  return open(key.legacy, sealed, null);
}

function open(key: Buffer, sealed: Buffer, place: Buffer | null): string | null {
  try {
    const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, IV));
    if (place) decipher.setAAD(place);
    decipher.setAuthTag(sealed.subarray(IV, IV + TAG));
    return Buffer.concat([decipher.update(sealed.subarray(IV + TAG)), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}
