import { createCipheriv, createHash, randomBytes } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { keyFrom, type SealKey, seal, sealedWith, unseal } from './seal';

const made = (text: string) => keyFrom(text) as SealKey;
const PLACE = 'account 7 link';

describe('a password is sealed', () => {
  test('it opens with the same key at the same place, and never stands in what is kept', async () => {
    const key = made('a key of this installation');
    const sealed = await seal(key, PLACE, 'quaymark-practice-pw');
    expect(await unseal(key, PLACE, sealed)).toBe('quaymark-practice-pw');
    expect(sealed.toString('latin1')).not.toContain('practice');
    expect((await seal(key, PLACE, 'quaymark-practice-pw')).equals(sealed)).toBe(false);
  });

  test('another key, another place, or any changed octet opens nothing', async () => {
    const sealed = await seal(made('one'), PLACE, 'quaymark-practice-pw');
    expect(await unseal(made('two'), PLACE, sealed)).toBeNull();
    expect(await unseal(made('one'), 'account 8 link', sealed)).toBeNull();
    // One octet of the salt stands for all of them: each is a slow derivation of its own.
    const octets = Array.from(sealed.keys()).filter((at) => at < 10 || at > 24);
    for (const at of octets) {
      const changed = Buffer.from(sealed);
      changed[at] = (changed[at] ?? 0) ^ 1;
      expect(await unseal(made('one'), PLACE, changed), `octet ${at}`).toBeNull();
    }
    for (const cut of [0, 1, 12, 37, sealed.length - 1])
      expect(await unseal(made('one'), PLACE, sealed.subarray(0, cut))).toBeNull();
  }, 30_000);

  test('what is sealed names its key, so that another one is noticed', async () => {
    const sealed = await seal(made('one'), PLACE, 'x');
    expect(sealedWith(sealed)).toBe(await made('one').id());
    expect(sealedWith(sealed)).not.toBe(await made('two').id());
    expect(sealedWith(Buffer.alloc(40))).toBeNull();
  });

  test('what the first version sealed still opens', async () => {
    const iv = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', createHash('sha256').update('one').digest(), iv);
    const text = Buffer.concat([cipher.update('old password', 'utf8'), cipher.final()]);
    const sealed = Buffer.concat([iv, cipher.getAuthTag(), text]);
    expect(await unseal(made('one'), PLACE, sealed)).toBe('old password');
    expect(await unseal(made('two'), PLACE, sealed)).toBeNull();
  });

  test('without a text there is no key', () => {
    expect(keyFrom(undefined)).toBeNull();
    expect(keyFrom('')).toBeNull();
  });
});
