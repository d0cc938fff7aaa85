import { connect } from 'node:net';
import { mayAsk, publicLookup } from '../http/addresses';
import type { HttpLimits } from './rdapClient';

const PORT = 43;
const MOST_BYTES = 200_000;

/** Asks a WHOIS server (RFC 3912), `host` or `host:port`. Throws when no answer comes in time or it is too long. */
export function askWhois(
  server: string,
  ascii: string,
  { allowedHosts, timeoutMs = 10_000 }: HttpLimits,
): Promise<string> {
  const [host = '', port] = server.split(':');
  return new Promise((resolve, reject) => {
    if (!mayAsk(host, allowedHosts)) {
      reject(new Error(`${host} is not at a public address`));
      return;
    }
    const pieces: Buffer[] = [];
    let size = 0;
    const socket = connect({ host, port: Number(port ?? PORT), lookup: publicLookup(allowedHosts) as never });
    const timer = setTimeout(() => socket.destroy(new Error('no answer in time')), timeoutMs);
    socket.on('connect', () => socket.write(`${ascii}\r\n`));
    socket.on('data', (piece: Buffer) => {
      size += piece.length;
      if (size > MOST_BYTES) socket.destroy(new Error('the answer is too long'));
      else pieces.push(piece);
    });
    socket.on('end', () => resolve(Buffer.concat(pieces).toString('utf8')));
    socket.on('error', reject);
    socket.on('close', () => {
      clearTimeout(timer);
      reject(new Error('the answer broke off'));
    });
  });
}
