import { createSocket } from 'node:dgram';
import { connect } from 'node:net';
import packet, { type Answer, type DecodedPacket } from 'dns-packet';
import type { ZoneKey } from '@/formats/zone/delegation';
import { quoteText, type ZoneRecord } from '@/formats/zone/zoneFile';

/** What is looked at of a name: where it leads, its mail, its texts, and how it is secured. */
const TYPES = ['NS', 'A', 'AAAA', 'MX', 'TXT', 'CAA', 'DS'] as const;
type Type = (typeof TYPES)[number] | 'DNSKEY';

export interface DnsServer {
  readonly host: string;
  readonly port: number;
  readonly timeoutMs?: number;
}

/** The records of a name as they are seen, and of `www` in it. Throws when the server does not answer. */
export async function lookAtZone(server: DnsServer, ascii: string): Promise<ZoneRecord[]> {
  const asked: [string, string, Type][] = [
    ...TYPES.map((type): [string, string, Type] => ['@', ascii, type]),
    ['www', `www.${ascii}`, 'A'],
    ['www', `www.${ascii}`, 'AAAA'],
  ];
  const found = await Promise.all(
    asked.map(async ([owner, name, type]) => {
      const { answers = [] } = await askDns(server, name, type);
      return answers.flatMap((answer) => (answer.type === type ? zoneRecord(owner, answer) : []));
    }),
  );
  return found.flat();
}

/** The signers of a name as its parent shows them, and the keys that its own zone shows. Throws when the server does not answer. */
export async function lookAtDelegation(
  server: DnsServer,
  ascii: string,
): Promise<{ readonly signers: readonly string[]; readonly keys: readonly ZoneKey[] }> {
  const [parent, zone] = await Promise.all([askDns(server, ascii, 'DS'), askDns(server, ascii, 'DNSKEY')]);
  return {
    signers: (parent.answers ?? []).flatMap((answer) => zoneRecord('@', answer).map(({ data }) => data)),
    keys: (zone.answers ?? []).flatMap((answer) => (answer.type === 'DNSKEY' ? [answer.data] : [])),
  };
}

/** One question over UDP, over TCP when the answer is cut short (RFC 1035 section 4.2). */
export async function askDns(server: DnsServer, name: string, type: Type): Promise<DecodedPacket> {
  const question = packet.encode({
    type: 'query',
    id: Math.floor(Math.random() * 65_536),
    flags: packet.RECURSION_DESIRED,
    questions: [{ type: type as never, name }],
  });
  const answer = await overUdp(server, question);
  return answer.flag_tc ? overTcp(server, question) : answer;
}

function overUdp({ host, port, timeoutMs = 5000 }: DnsServer, question: Buffer): Promise<DecodedPacket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket('udp4');
    const end = (act: () => void) => {
      clearTimeout(timer);
      socket.close();
      act();
    };
    const timer = setTimeout(() => end(() => reject(new Error('the name server did not answer'))), timeoutMs);
    socket.on('error', (error) => end(() => reject(error)));
    socket.on('message', (message) => {
      let answer: DecodedPacket;
      try {
        answer = packet.decode(message);
      } catch {
        return end(() => reject(new Error('the name server’s answer is not to be read')));
      }
      // Another id answers another question.
      if (answer.id === question.readUInt16BE(0)) end(() => resolve(answer));
    });
    socket.send(question, port, host);
  });
}

function overTcp({ host, port, timeoutMs = 5000 }: DnsServer, question: Buffer): Promise<DecodedPacket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    const pieces: Buffer[] = [];
    socket.setTimeout(timeoutMs, () => socket.destroy(new Error('the name server did not answer')));
    socket.on('connect', () => {
      const length = Buffer.alloc(2);
      length.writeUInt16BE(question.length);
      socket.write(Buffer.concat([length, question]));
    });
    socket.on('data', (piece: Buffer) => {
      pieces.push(piece);
      const all = Buffer.concat(pieces);
      if (all.length < 2 || all.length < 2 + all.readUInt16BE(0)) return;
      socket.destroy();
      try {
        resolve(packet.decode(all.subarray(2)));
      } catch {
        reject(new Error('the name server’s answer is not to be read'));
      }
    });
    socket.on('error', reject);
    socket.on('close', () => reject(new Error('the name server broke off')));
  });
}

function zoneRecord(name: string, answer: Answer): ZoneRecord[] {
  const record = (data: string): ZoneRecord[] => [
    { name, ttl: 'ttl' in answer ? (answer.ttl ?? 0) : 0, type: answer.type, data },
  ];
  switch (answer.type) {
    case 'A':
    case 'AAAA':
      return record(answer.data);
    case 'NS':
      return record(`${answer.data}.`);
    case 'MX':
      return record(`${answer.data.preference ?? 0} ${answer.data.exchange}.`);
    case 'TXT': {
      const parts = Array.isArray(answer.data) ? answer.data : [answer.data];
      return record(parts.map((part) => quoteText(part.toString())).join(' '));
    }
    case 'CAA':
      return record(`${answer.data.flags ?? 0} ${answer.data.tag} ${quoteText(String(answer.data.value))}`);
    case 'DS':
      return record(
        [
          answer.data.keyTag,
          answer.data.algorithm,
          answer.data.digestType,
          answer.data.digest.toString('hex').toUpperCase(),
        ].join(' '),
      );
    default:
      return [];
  }
}
