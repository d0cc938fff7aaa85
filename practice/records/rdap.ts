import { createHash } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import { RDAP_STATUS } from '@/core/records/statuses';
import type { Faults } from '../epp/faults';
import type { World } from '../world/types';
import { REGISTRAR_IDS, type Told, tell } from './truth';

const iso = (at: number) => new Date(at).toISOString();

/** Endings whose registry speaks RDAP here; the others have WHOIS. */
export const RDAP_ENDINGS: readonly string[] = ['com', 'net', 'org', 'me', 'co', 'io', 'ai', 'shop', 'nl', 'eu'];

/** Most questions a client may ask in a second, before it is asked to wait. */
export const MOST_A_SECOND = 1000;

/**
 * RDAP (RFC 9082, RFC 9083): `/registry/domain/NAME`, and each registrar's own at `/registrar/ID/domain/NAME`. With entity tags, a
 * limit on questions, and the faults of `records`.
 */
export function rdapServer(world: World, faults: Faults, base: () => string, most = MOST_A_SECOND): Server {
  let second = 0;
  let asked = 0;
  return createServer((request, answer) => {
    const now = Math.floor(Date.now() / 1000);
    asked = now === second ? asked + 1 : 1;
    second = now;
    const fault = faults.strike('records', ['slow', 'cut', 'garbage', 'busy']);
    if (fault === 'busy' || asked > most) {
      answer.writeHead(429, { 'retry-after': '1' }).end();
      return;
    }
    if (fault === 'slow') return;
    if (fault === 'garbage') {
      answer.writeHead(200, { 'content-type': 'application/rdap+json' }).end('{"objectClassName":"dom');
      return;
    }
    const match = /^\/(registry|registrar\/([a-z]+))\/domain\/([a-z0-9.-]{3,253})$/.exec(request.url ?? '');
    const name = match?.[3] ?? '';
    const who = match?.[2] ? 'registrar' : 'registry';
    const told = match ? tell(world, name, who) : null;
    if (!told || (match?.[2] && told.registrar.id !== match[2])) {
      answer.writeHead(404, { 'content-type': 'application/rdap+json' }).end('{"errorCode":404,"title":"Not Found"}');
      return;
    }
    const body = JSON.stringify(domainObject(told, who, base()));
    const etag = `"${createHash('sha1').update(body).digest('hex').slice(0, 16)}"`;
    if (request.headers['if-none-match'] === etag && fault !== 'cut') {
      answer.writeHead(304, { etag }).end();
      return;
    }
    answer.writeHead(200, { 'content-type': 'application/rdap+json', etag, 'content-length': Buffer.byteLength(body) });
    if (fault === 'cut') {
      answer.write(body.slice(0, 80));
      setTimeout(() => answer.destroy(), 20);
    } else answer.end(body);
  });
}

function secureDns(signer: string | null): object {
  const [keyTag, algorithm, digestType, digest] = signer?.split(' ') ?? [];
  return digest
    ? {
        delegationSigned: true,
        dsData: [{ keyTag: Number(keyTag), algorithm: Number(algorithm), digestType: Number(digestType), digest }],
      }
    : { delegationSigned: false };
}

function domainObject(told: Told, who: 'registry' | 'registrar', base: string): object {
  const { registrar } = told;
  const card = (...properties: unknown[][]) => ['vcard', [['version', {}, 'text', '4.0'], ...properties]];
  const hidden = told.holder === null;
  const address = `${base}/registrar/${registrar.id}/domain/${told.name}`;
  return {
    rdapConformance: ['rdap_level_0', ...(hidden ? ['redacted'] : [])],
    objectClassName: 'domain',
    handle: `${told.createdAt.toString(36).toUpperCase()}-PRACTICE`,
    ldhName: told.name,
    status: told.statuses.map((status) => RDAP_STATUS[status as keyof typeof RDAP_STATUS] ?? status),
    events: [
      { eventAction: 'registration', eventDate: iso(told.createdAt) },
      { eventAction: who === 'registry' ? 'expiration' : 'registrar expiration', eventDate: iso(told.expires) },
      { eventAction: 'last changed', eventDate: iso(told.changed) },
      ...(told.movedAt === null ? [] : [{ eventAction: 'transfer', eventDate: iso(told.movedAt) }]),
    ],
    nameservers: told.nameServers.map((host) => ({ objectClassName: 'nameserver', ldhName: host })),
    secureDNS: secureDns(told.signer),
    links:
      who === 'registry' ? [{ value: told.name, rel: 'related', href: address, type: 'application/rdap+json' }] : [],
    entities: [
      {
        objectClassName: 'entity',
        handle: REGISTRAR_IDS[registrar.id],
        roles: ['registrar'],
        publicIds: [{ type: 'IANA Registrar ID', identifier: REGISTRAR_IDS[registrar.id] }],
        vcardArray: card(['fn', {}, 'text', registrar.title]),
        entities: [
          {
            objectClassName: 'entity',
            roles: ['abuse'],
            vcardArray: card(
              ['fn', {}, 'text', ''],
              ['tel', { type: 'voice' }, 'uri', 'tel:+1.5550100'],
              ['email', {}, 'text', `abuse@${registrar.id}.test`],
            ),
          },
        ],
      },
      {
        objectClassName: 'entity',
        roles: ['registrant'],
        vcardArray: hidden
          ? card(['fn', {}, 'text', ''], ['contact-uri', {}, 'uri', `https://${registrar.id}.test/reach/${told.name}`])
          : card(['fn', {}, 'text', told.holder], ['email', {}, 'text', told.mail ?? '']),
      },
    ],
    ...(hidden ? { redacted: [{ name: { description: 'Registrant Name' }, method: 'emptyValue' }] } : {}),
  };
}
