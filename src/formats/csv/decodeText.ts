/** The text of a file, and the encoding it was found to be in. */
export interface DecodedText {
  readonly text: string;
  readonly encoding: 'UTF-8' | 'UTF-16LE' | 'UTF-16BE' | 'Latin-1';
}

/**
 * Decodes a file whose encoding nobody has named: a byte order mark decides; else UTF-16 shows by its zero bytes, UTF-8 by
 * being valid (RFC 3629), and anything else is Latin-1 (as windows-1252, WHATWG Encoding). The mark itself is taken off.
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return { text: decode(bytes, 'utf-16le'), encoding: 'UTF-16LE' };
  if (a === 0xfe && b === 0xff) return { text: decode(bytes, 'utf-16be'), encoding: 'UTF-16BE' };
  const zeros = zeroBytes(bytes.subarray(0, 4096));
  if (zeros.odd > 8 * (zeros.even + 1)) return { text: decode(bytes, 'utf-16le'), encoding: 'UTF-16LE' };
  if (zeros.even > 8 * (zeros.odd + 1)) return { text: decode(bytes, 'utf-16be'), encoding: 'UTF-16BE' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: decodeLatin(bytes), encoding: 'Latin-1' };
  }
}

function decode(bytes: Uint8Array, label: string): string {
  return new TextDecoder(label).decode(bytes);
}

/** Octets 0x80 to 0x9F of windows-1252 (WHATWG Encoding, index windows-1252): Node 20 leaves them as control characters. */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

function decodeLatin(bytes: Uint8Array): string {
  return Buffer.from(bytes)
    .toString('latin1')
    .replace(/[\u0080-\u009f]/g, (letter) => WINDOWS_1252[letter.charCodeAt(0) - 0x80] as string);
}

function zeroBytes(bytes: Uint8Array): { even: number; odd: number } {
  const found = { even: 0, odd: 0 };
  for (const [i, byte] of bytes.entries()) if (byte === 0) found[i % 2 === 0 ? 'even' : 'odd'] += 1;
  return found;
}
