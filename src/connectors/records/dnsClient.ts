import { randomInt } from 'node:crypto';
import { createSocket } from 'node:dgram';
import { connect, isIPv6 } from 'node:net';
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

/** The records of a name as they are seen, and of what usually stands in it. Throws when the server does not answer. */
export async function lookAtZone(server: DnsServer, ascii: string): Promise<ZoneRecord[]> {
  const asked: [string, string, Type][] = [
    ...TYPES.map((type): [string, string, Type] => ['@', ascii, type]),
    ['www', `www.${ascii}`, 'A'],
    ['www', `www.${ascii}`, 'AAAA'],
    ['mail', `mail.${ascii}`, 'A'],
    ['_dmarc', `_dmarc.${ascii}`, 'TXT'],
  ];
  const found = await Promise.all(
    asked.map(async ([owner, name, type]) => {
      const { answers = [] } = await askDns(server, name, type);
      return answers.flatMap((answer) => (answer.type === type ? zoneRecord(owner, answer) : []));
    }),
  );
  return found.flat();
}

/** A zone as it was looked at, and the server of its own that showed it; `null` where none of them could be asked. */
export interface SeenZone {
  readonly records: readonly ZoneRecord[];
  readonly from: string | null;
}

const DNS_PORT = 53;
const MOST_SERVERS = 4;
const DIRECT_MS = 2000;

/**
 * The records of a name as its own name servers show them, asked one after the other until one answers; where none can be asked, as
 * `server` tells them. Signers stand with the parent (RFC 4035 section 3.1.4.1), so `server` is asked for these. `mayAsk` keeps
 * questions from addresses that are not public.
 */
export async function lookAtOwnZone(
  server: DnsServer,
  ascii: string,
  mayAsk: (address: string) => boolean,
  port = DNS_PORT,
): Promise<SeenZone> {
  const { answers: servers = [] } = await askDns(server, ascii, 'NS');
  const hosts = servers.flatMap((answer) => (answer.type === 'NS' ? [answer.data] : []));
  for (const host of hosts.slice(0, MOST_SERVERS)) {
    const { answers: addresses = [] } = await askDns(server, host, 'A');
    const address = addresses.flatMap((answer) => (answer.type === 'A' ? [answer.data] : [])).find(mayAsk);
    if (address === undefined) continue;
    const own = await lookAtZone({ host: address, port, timeoutMs: DIRECT_MS }, ascii).catch(() => null);
    // One that does not answer, or knows nothing of the name, is passed over.
    if (own === null || own.length === 0) continue;
    const { answers: signers = [] } = await askDns(server, ascii, 'DS');
    const ds = signers.flatMap((answer) => (answer.type === 'DS' ? zoneRecord('@', answer) : []));
    return { records: [...own.filter(({ type }) => type !== 'DS'), ...ds], from: host };
  }
  return { records: await lookAtZone(server, ascii), from: null };
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

/**
 * One question over UDP, over TCP when the answer is cut short (RFC 1035 section 4.2), within one deadline for both. Only an
 * answer to this very question counts (RFC 5452 section 9). Throws when none comes, or when the server says that it does not know
 * (SERVFAIL, REFUSED): then nothing is known of the name, which is not the same as nothing being there.
 */
export async function askDns(server: DnsServer, name: string, type: Type): Promise<DecodedPacket> {
  const question = packet.encode({
    type: 'query',
    id: randomInt(65_536),
    flags: packet.RECURSION_DESIRED,
    questions: [{ type: type as never, name }],
  });
  const deadline = Date.now() + (server.timeoutMs ?? TIMEOUT_MS);
  const first = await overUdp(server, question, deadline);
  const answer = first.flag_tc ? await overTcp(server, question, deadline) : first;
  const { rcode } = answer as DecodedPacket & { rcode?: string };
  if (rcode !== undefined && rcode !== 'NOERROR' && rcode !== 'NXDOMAIN')
    throw new Error(`the name server does not know (${rcode})`);
  return answer;
}

const TIMEOUT_MS = 5000;

/** Whether an answer is one to this question: its number, and name and type as they were asked. */
function answers(question: Buffer, answer: DecodedPacket): boolean {
  const [asked] = packet.decode(question).questions ?? [];
  const [said] = answer.questions ?? [];
  return (
    answer.type === 'response' &&
    answer.id === question.readUInt16BE(0) &&
    said !== undefined &&
    said.name.toLowerCase() === asked?.name.toLowerCase() &&
    said.type === asked.type
  );
}

function read(message: Buffer): DecodedPacket | null {
  try {
    return packet.decode(message);
  } catch {
    return null;
  }
}

function overUdp({ host, port }: DnsServer, question: Buffer, deadline: number): Promise<DecodedPacket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket(isIPv6(host) ? 'udp6' : 'udp4');
    const end = (act: () => void) => {
      clearTimeout(timer);
      socket.close();
      act();
    };
    const timer = setTimeout(
      () => end(() => reject(new Error('the name server did not answer'))),
      Math.max(1, deadline - Date.now()),
    );
    socket.on('error', (error) => end(() => reject(error)));
    socket.on('message', (message) => {
      // Whatever does not answer the question is somebody else's, or forged: the answer may still come.
      const answer = read(message);
      if (answer && answers(question, answer)) end(() => resolve(answer));
    });
    // Connected, so that only this server is heard.
    socket.connect(port, host, () => socket.send(question));
  });
}

function overTcp({ host, port }: DnsServer, question: Buffer, deadline: number): Promise<DecodedPacket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    let all = Buffer.alloc(0);
    const timer = setTimeout(
      () => socket.destroy(new Error('the name server did not answer')),
      Math.max(1, deadline - Date.now()),
    );
    socket.on('connect', () => {
      const length = Buffer.alloc(2);
      length.writeUInt16BE(question.length);
      socket.write(Buffer.concat([length, question]));
    });
    socket.on('data', (piece: Buffer) => {
      all = Buffer.concat([all, piece]);
      if (all.length < 2 || all.length < 2 + all.readUInt16BE(0)) return;
      const answer = read(all.subarray(2, 2 + all.readUInt16BE(0)));
      if (answer && answers(question, answer)) resolve(answer);
      else reject(new Error('the name server’s answer is not to be read'));
      socket.destroy();
    });
    socket.on('error', reject);
    socket.on('close', () => {
      clearTimeout(timer);
      reject(new Error('the name server broke off'));
    });
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
