import { createSocket, type Socket } from 'node:dgram';
import { createServer, type Server } from 'node:net';
import packet, { type Answer, type Packet } from 'dns-packet';
import type { Domain, World } from '../world/types';
import { shownKey, signerAtRegistry } from './keys';

const MOST_UDP_BYTES = 512;
const TTL = 3600;

/** What hangs on a name here: name servers, a site, mail, and a text. Names on hold or past their late window answer nothing. */
function answersFor(world: World, question: { name: string; type: string }): Answer[] {
  const asked = question.name.toLowerCase().replace(/\.$/, '');
  const www = asked.startsWith('www.');
  const domain = world.domains.get(www ? asked.slice(4) : asked);
  if (!domain || !works(domain) || (www && question.type !== 'A')) return [];
  const base = { name: question.name, ttl: TTL, class: 'IN' as const };
  switch (question.type) {
    case 'NS':
      return domain.nameServers.map((data) => ({ ...base, type: 'NS', data }));
    case 'A':
      return [{ ...base, type: 'A', data: `192.0.2.${1 + (domain.name.length % 250)}` }];
    case 'MX':
      return domain.name.length % 2 === 0
        ? [{ ...base, type: 'MX', data: { preference: 10, exchange: `mail.${domain.name}` } }]
        : [];
    case 'TXT':
      return (world.texts.get(domain.name) ?? []).map((data) => ({ ...base, type: 'TXT', data }));
    case 'DS': {
      const [tag, algorithm, digestType, digest] = signerAtRegistry(world, domain.name)?.split(' ') ?? [];
      return digest
        ? [
            {
              ...base,
              type: 'DS',
              data: {
                keyTag: Number(tag),
                algorithm: Number(algorithm),
                digestType: Number(digestType),
                digest: Buffer.from(digest, 'hex'),
              },
            },
          ]
        : [];
    }
    case 'DNSKEY': {
      const key = shownKey(world, domain.name);
      return key ? [{ ...base, type: 'DNSKEY', data: { ...key, key: Buffer.from(key.key) } }] : [];
    }
    default:
      return [];
  }
}

const works = (domain: Domain) => domain.state === 'registered' && !domain.hold && domain.nameServers.length > 0;

function respond(world: World, message: Buffer, overUdp: boolean): Buffer | null {
  let query: Packet & { id?: number };
  try {
    query = packet.decode(message);
  } catch {
    return null;
  }
  const [question] = query.questions ?? [];
  if (!question) return null;
  const answers = answersFor(world, question);
  const known = world.domains.has(question.name.toLowerCase().replace(/^www\./, ''));
  const nameError = known ? 0 : 3;
  const reply = (list: Answer[], more = 0) =>
    packet.encode({
      type: 'response',
      id: query.id ?? 0,
      flags: packet.AUTHORITATIVE_ANSWER | packet.RECURSION_AVAILABLE | more | nameError,
      questions: [question],
      answers: list,
    });
  const whole = reply(answers);
  return overUdp && whole.length > MOST_UDP_BYTES ? reply([], packet.TRUNCATED_RESPONSE) : whole;
}

/** DNS over UDP and TCP (RFC 1035 section 4.2) for every name of the practice world. */
export function dnsServers(world: World): { udp: Socket; tcp: Server } {
  const udp = createSocket('udp4');
  udp.on('message', (message, from) => {
    const answer = respond(world, message, true);
    if (answer) udp.send(answer, from.port, from.address);
  });
  const tcp = createServer((socket) => {
    let all = Buffer.alloc(0);
    socket.on('error', () => socket.destroy());
    socket.on('data', (piece) => {
      all = Buffer.concat([all, piece]);
      while (all.length >= 2 && all.length >= 2 + all.readUInt16BE(0)) {
        const length = all.readUInt16BE(0);
        const answer = respond(world, all.subarray(2, 2 + length), false);
        all = all.subarray(2 + length);
        if (!answer) continue;
        const head = Buffer.alloc(2);
        head.writeUInt16BE(answer.length);
        socket.write(Buffer.concat([head, answer]));
      }
    });
  });
  return { udp, tcp };
}
