import { createHash, createSign, generateKeyPairSync, type KeyObject, randomBytes } from 'node:crypto';
import { type CBORType, encodeCBOR } from '@levischuck/tiny-cbor';
import type { AuthenticationResponseJSON, RegistrationResponseJSON } from '@simplewebauthn/server';

/** A device that holds one passkey, in software. Source of every layout: WebAuthn level 2, sections 6.1, 6.5 and 5.8.1. */
export interface SoftPasskey {
  readonly id: string;
  /** Answers to a ceremony that makes the passkey. */
  create(challenge: string, origin: string, rpId?: string): RegistrationResponseJSON;
  /** Answers to a ceremony that signs in; `by` another key, where a forger has none of ours. */
  get(challenge: string, origin: string, more?: GetOptions): AuthenticationResponseJSON;
}

export interface GetOptions {
  readonly rpId?: string;
  readonly by?: KeyObject;
  readonly counter?: number;
  readonly isVerified?: boolean;
}

const PRESENT = 0x01;
const VERIFIED = 0x04;
const ATTESTED = 0x40;
const sha256 = (data: string | Buffer) => createHash('sha256').update(data).digest();

const clientData = (type: string, challenge: string, origin: string) =>
  Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));

function authenticatorData(rpId: string, flags: number, counter: number, attested = Buffer.alloc(0)): Buffer {
  const count = Buffer.alloc(4);
  count.writeUInt32BE(counter);
  return Buffer.concat([sha256(rpId), Buffer.from([flags]), count, attested]);
}

/** A public key as COSE (RFC 9053 sections 2.1, 7.1.1): EC2, ES256, P-256. */
function coseOf(key: KeyObject): Buffer {
  const { x = '', y = '' } = key.export({ format: 'jwk' });
  const members = new Map<number, number | Uint8Array>([
    [1, 2],
    [3, -7],
    [-1, 1],
    [-2, new Uint8Array(Buffer.from(x, 'base64url'))],
    [-3, new Uint8Array(Buffer.from(y, 'base64url'))],
  ]);
  return Buffer.from(encodeCBOR(members));
}

export const newKey = () => generateKeyPairSync('ec', { namedCurve: 'P-256' });

export function softPasskey(): SoftPasskey {
  const { privateKey, publicKey } = newKey();
  const rawId = randomBytes(32);
  const id = rawId.toString('base64url');
  return {
    id,
    create(challenge, origin, rpId = 'localhost') {
      const length = Buffer.alloc(2);
      length.writeUInt16BE(rawId.length);
      const attested = Buffer.concat([Buffer.alloc(16), length, rawId, coseOf(publicKey)]);
      const authData = new Uint8Array(authenticatorData(rpId, PRESENT | VERIFIED | ATTESTED, 0, attested));
      const attestation = encodeCBOR(
        new Map<string, CBORType>([
          ['fmt', 'none'],
          ['attStmt', new Map<string, CBORType>()],
          ['authData', authData],
        ]),
      );
      return {
        id,
        rawId: id,
        type: 'public-key',
        clientExtensionResults: {},
        response: {
          clientDataJSON: clientData('webauthn.create', challenge, origin).toString('base64url'),
          attestationObject: Buffer.from(attestation).toString('base64url'),
          transports: ['internal'],
        },
      };
    },
    get(challenge, origin, { rpId = 'localhost', by = privateKey, counter = 0, isVerified = true } = {}) {
      const data = clientData('webauthn.get', challenge, origin);
      const authData = authenticatorData(rpId, PRESENT | (isVerified ? VERIFIED : 0), counter);
      const signature = createSign('SHA256').update(authData).update(sha256(data)).sign(by);
      return {
        id,
        rawId: id,
        type: 'public-key',
        clientExtensionResults: {},
        response: {
          clientDataJSON: data.toString('base64url'),
          authenticatorData: authData.toString('base64url'),
          signature: signature.toString('base64url'),
        },
      };
    },
  };
}
