import { type AddressInfo, createServer, type Socket } from 'node:net';
import { afterEach, describe, expect, test } from 'vitest';
import { type MailServer, sendMail } from './mail';

const closing: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

const MAIL = { from: 'a@harbour.test', to: 'b@harbour.test', subject: 's', text: 't', html: '<p>t</p>' };

/** A mail server for one test; keeps every line that it is told. */
async function smtp(host: string, greet: (socket: Socket) => void): Promise<{ server: MailServer; lines: string[] }> {
  const lines: string[] = [];
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    socket.on('data', (piece) => {
      for (const line of piece.toString().split('\r\n').filter(Boolean)) {
        lines.push(line);
        if (/^EHLO|^HELO/.test(line)) socket.write('250-mail.harbour.test\r\n250 AUTH PLAIN LOGIN\r\n');
        else if (/^STARTTLS/.test(line)) socket.write('502 not here\r\n');
        else socket.write('250 fine\r\n');
      }
    });
    greet(socket);
  });
  await new Promise<void>((ready) => server.listen(0, '0.0.0.0', ready));
  closing.push(async () => {
    for (const socket of sockets) socket.destroy();
    await new Promise((closed) => server.close(closed));
  });
  const { port } = server.address() as AddressInfo;
  return { server: { host, port, user: 'office', password: 'mail-password', allowedHosts: [host] }, lines };
}

describe('mail with a login', () => {
  test('off loopback nothing of the password is said before the connection is encrypted (RFC 8314 section 4.1)', async () => {
    const { server, lines } = await smtp('0.0.0.0', (socket) => socket.write('220 ready\r\n'));
    await expect(sendMail(server, MAIL)).rejects.toThrow(/TLS/i);
    expect(lines.join('\n')).not.toMatch(/AUTH|MAIL FROM/);
  });

  test('a host that is not public is not connected to', async () => {
    const { server, lines } = await smtp('127.0.0.1', (socket) => socket.write('220 ready\r\n'));
    await expect(sendMail({ ...server, allowedHosts: [] }, MAIL)).rejects.toThrow('not at a public address');
    expect(lines).toEqual([]);
  });
});

describe('a mail server that does not behave', () => {
  test('says nothing: given up in time', async () => {
    const { server } = await smtp('127.0.0.1', () => undefined);
    await expect(sendMail(server, MAIL, 300)).rejects.toThrow();
  });

  test('says too much: cut off', async () => {
    const { server } = await smtp('127.0.0.1', (socket) => {
      const flood = setInterval(() => socket.write(Buffer.alloc(60_000, 'x')), 5);
      socket.on('close', () => clearInterval(flood));
    });
    const since = Date.now();
    await expect(sendMail(server, MAIL, 10_000)).rejects.toThrow();
    expect(Date.now() - since).toBeLessThan(5000);
  });
});
