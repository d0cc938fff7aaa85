import { type AddressInfo, connect } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { type BoxedMail, MAILBOX_LOGIN, mailboxServer } from './mailbox';
import { officeMails } from './officeMails';

const closing: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of closing.splice(0)) await close();
});

/** A line after the other, each answered up to its tag. */
async function session(mails: readonly BoxedMail[]) {
  const server = mailboxServer(mails, 42);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const socket = connect((server.address() as AddressInfo).port, '127.0.0.1');
  closing.push(async () => {
    socket.destroy();
    await new Promise((closed) => server.close(closed));
  });
  let heard = '';
  socket.on('data', (piece) => {
    heard += piece.toString('utf8');
  });
  const until = async (pattern: RegExp) => {
    await expect.poll(() => pattern.test(heard)).toBe(true);
    const said = heard;
    heard = '';
    return said;
  };
  await until(/ready|mailbox/);
  return async (line: string) => {
    socket.write(`a ${line}\r\n`);
    return until(/^a (OK|NO|BAD) .*\r\n$/m);
  };
}
const MAILS: BoxedMail[] = [
  { uid: 3, at: new Date('2026-11-20T00:00:00Z'), raw: 'Subject: für\r\n\r\nx' },
  { uid: 8, at: new Date('2026-11-22T00:00:00Z'), raw: 'Subject: b\r\n\r\ny' },
];

test('logged in, opened, searched, fetched (RFC 3501)', async () => {
  const say = await session(MAILS);
  expect(await say('UID SEARCH ALL')).toContain('a NO');
  expect(await say('LOGIN office wrong')).toContain('a NO [AUTHENTICATIONFAILED]');
  expect(await say(`LOGIN "${MAILBOX_LOGIN.user}" "${MAILBOX_LOGIN.password}"`)).toContain('a OK');
  expect(await say('UID SEARCH ALL')).toContain('a NO');
  expect(await say('EXAMINE Other')).toContain('a NO [NONEXISTENT]');
  expect(await say('EXAMINE INBOX')).toMatch(/\* 2 EXISTS[\s\S]*\[UIDVALIDITY 42\]/);
  expect(await say('UID SEARCH UID 4:*')).toContain('* SEARCH 8\r\n');
  expect(await say('UID SEARCH SINCE 21-Nov-2026')).toContain('* SEARCH 8\r\n');
  // As the standard has it, “n:*” names the last mail even where its number is lower.
  expect(await say('UID SEARCH UID 20:*')).toContain('* SEARCH 8\r\n');
  const fetched = await say('UID FETCH 3 (UID BODY.PEEK[])');
  expect(fetched).toContain('{18}\r\nSubject: für\r\n\r\nx)');
  expect(await say('EXPUNGE')).toContain('a BAD');
});

test('the mails of the demo’s office are mails', () => {
  const mails = officeMails(Date.parse('2026-11-24T09:12:00Z'));
  expect(mails.map(({ uid }) => uid)).toEqual([1, 2, 3, 4]);
  for (const { raw, at } of mails) {
    expect(raw).toMatch(/^From: .*\r\nTo: .*\r\nDate: .*\r\nMessage-ID: <.*@practice\.test>\r\nSubject: /);
    expect(raw).not.toMatch(/[^\r]\n/);
    expect(at.getTime()).toBeLessThan(Date.parse('2026-11-24T09:12:00Z'));
  }
});
