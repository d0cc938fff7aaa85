import { createHash } from 'node:crypto';

/** A public key of a zone (DNSKEY, RFC 4034 section 2). */
export interface ZoneKey {
  readonly flags: number;
  readonly algorithm: number;
  readonly key: Uint8Array;
}

/** Digests of delegation signers by their number (RFC 4034, RFC 4509, RFC 6605). */
const DIGESTS: Readonly<Record<number, string>> = { 1: 'sha1', 2: 'sha256', 4: 'sha384' };
const DNSSEC_PROTOCOL = 3;

function keyData({ flags, algorithm, key }: ZoneKey): Buffer {
  return Buffer.concat([Buffer.from([flags >> 8, flags & 0xff, DNSSEC_PROTOCOL, algorithm]), key]);
}

/** The tag by which a delegation signer refers to a key (RFC 4034 appendix B). */
export function keyTag(zoneKey: ZoneKey): number {
  const sum = keyData(zoneKey).reduce((all, byte, i) => all + (i % 2 === 0 ? byte << 8 : byte), 0);
  return (sum + ((sum >> 16) & 0xffff)) & 0xffff;
}

/** The delegation signer of a key as `tag algorithm digestType digest` (RFC 4034 section 5.1.4); `null` for an unknown digest. */
export function signerOf(owner: string, zoneKey: ZoneKey, digestType: number): string | null {
  const digest = DIGESTS[digestType];
  if (!digest) return null;
  const labels = owner.toLowerCase().replace(/\.$/, '').split('.');
  const wire = Buffer.concat([
    ...labels.map((label) => Buffer.from([label.length, ...Buffer.from(label)])),
    Buffer.of(0),
  ]);
  const hex = createHash(digest).update(wire).update(keyData(zoneKey)).digest('hex').toUpperCase();
  return `${keyTag(zoneKey)} ${zoneKey.algorithm} ${digestType} ${hex}`;
}

/**
 * Whether one of the signers vouches for a key that the zone shows. Without that the name does not resolve for whoever checks
 * signatures. `null` when nothing vouches for the zone, or only by digests that are not known here.
 */
export function delegationStands(owner: string, signers: readonly string[], keys: readonly ZoneKey[]): boolean | null {
  const known = signers.filter((signer) => DIGESTS[Number(signer.split(' ')[2])]);
  if (known.length === 0) return null;
  return known.some((signer) => keys.some((key) => signerOf(owner, key, Number(signer.split(' ')[2])) === signer));
}
