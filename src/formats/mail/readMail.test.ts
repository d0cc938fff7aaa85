import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readNews } from '@/core/news';
import { isRefusal } from '@/core/refusal';
import { mailsIn, pastedMail, type ReadMail, readMail } from './readMail';

const bytes = (text: string) => new TextEncoder().encode(text.replaceAll('\n', '\r\n'));
const read = async (text: string): Promise<ReadMail> => {
  const mail = await readMail(bytes(text));
  if (isRefusal(mail)) throw new Error(mail.message);
  return mail;
};
const HEAD =
  'From: Quaymark <Service@Quaymark.test>\nTo: office@harbour.example\nDate: Tue, 24 Nov 2026 09:12:00 +0100\n';

describe('a mail (RFC 5322, MIME)', () => {
  test('its sender, subject, day and text', async () => {
    expect(await read(`${HEAD}Message-ID: <1@quaymark.test>\nSubject: Renewal\n\nkelpkiln.com\n`)).toMatchObject({
      messageId: '<1@quaymark.test>',
      from: 'service@quaymark.test',
      fromName: 'Quaymark',
      subject: 'Renewal',
      sentAt: '2026-11-24T08:12:00.000Z',
      text: 'kelpkiln.com\n',
    });
  });

  test('words in other letters and encodings (RFC 2047, quoted-printable, base64)', async () => {
    const mail = await read(
      `${HEAD}Subject: =?utf-8?Q?Best=C3=A4tigung?= =?utf-8?B?IGRlciBWZXJsw6RuZ2VydW5n?=\nMIME-Version: 1.0\nContent-Type: text/plain; charset=iso-8859-1\nContent-Transfer-Encoding: quoted-printable\n\nm=F6wenspeicher.de wurde verl=E4ngert\n`,
    );
    expect(mail.subject).toBe('Bestätigung der Verlängerung');
    expect(mail.text).toContain('möwenspeicher.de wurde verlängert');
  });

  test('HTML is text: no link, no picture, no script, a table row by row', async () => {
    const html =
      '<p>Renewals</p><script>fetch("https://evil.test")</script><img src="https://pixel.test/x.gif" alt="x"><table><tr><td>kelpkiln.com</td><td>11.38 USD</td></tr><tr><td>tidewick.net</td><td>12.10 USD</td></tr></table><a href="https://panel.test/kelpkiln.com">Open</a>';
    const { text } = await read(`${HEAD}Subject: x\nContent-Type: text/html; charset=utf-8\n\n${html}\n`);
    expect(text).not.toMatch(/evil|pixel|panel|<|fetch/);
    expect(text).toMatch(/kelpkiln\.com\s+11\.38 USD\n.*tidewick\.net\s+12\.10 USD/);
  });

  test('what the server that took it in found of its signatures, and nothing that somebody wrote below', async () => {
    const { signatures } = await read(
      `Authentication-Results: mx.harbour.example; dkim=fail header.d=quaymark.test; spf=pass\nAuthentication-Results: mx.elsewhere.test; dkim=pass\n${HEAD}Subject: x\n\nx\n`,
    );
    expect(signatures).toEqual(['dkim=fail', 'spf=pass']);
  });

  test('the same mail is known again where it has no id; what is none is refused', async () => {
    const [one, other] = await Promise.all([read(`${HEAD}Subject: x\n\na\n`), read(`${HEAD}Subject: x\n\na\n`)]);
    expect(one.messageId).toBe(other.messageId);
    expect(await readMail(bytes('this is no mail'))).toMatchObject({ code: 'mail-not-read' });
    expect(await readMail(new Uint8Array(0))).toMatchObject({ code: 'mail-not-read' });
  });
});

test('a mailbox file (RFC 4155): each of its mails, with what was quoted put back', async () => {
  const box = `From service@quaymark.test Tue Nov 24 09:12:00 2026\n${HEAD}Subject: one\n\n>From here on\nFrom the harbour\n\nFrom service@quaymark.test Tue Nov 24 09:13:00 2026\n${HEAD}Subject: two\n\nb\n`;
  const mails = await Promise.all(mailsIn(new TextEncoder().encode(box)).map(readMail));
  expect(mails.map((mail) => (mail as ReadMail).subject)).toEqual(['one', 'two']);
  expect((mails[0] as ReadMail).text).toContain('From here on\nFrom the harbour');
});

test('a pasted text: its first line, and the address that stands in it', () => {
  expect(pastedMail('kelpkiln.com has been renewed\nFrom: Service@quaymark.test\n')).toMatchObject({
    subject: 'kelpkiln.com has been renewed',
    from: 'service@quaymark.test',
  });
});

/** A hundred thousand by `npm run soak`. */
const MUTATED = process.env.SOAK ? 100_000 : 2000;

test(`${MUTATED} mails with something broken in them: none breaks the reader, none says what it did not say`, async () => {
  const registrars = JSON.parse(readFileSync('tests/standards/vectors/mails.json', 'utf8')) as {
    title: string;
    from: string;
    mails: { subject: string; body: string }[];
  }[];
  const known = {
    names: new Map(
      ['kelpkiln.com', 'quaybarrow.com', 'tidewick.net'].map((name, i) => [name, { id: i, accountId: 1 }]),
    ),
    accounts: [{ id: 1, label: 'Quaymark', registrar: 'Quaymark', currency: 'USD', host: null }],
    style: '1,234.50',
  } as const;
  const mails = registrars.flatMap(({ from, mails: all }) =>
    all.map(({ subject, body }) =>
      Buffer.from(`From: <${from}>\r\nSubject: ${subject}\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n${body}`),
    ),
  );
  const change = fc.record({
    mail: fc.constantFrom(...mails),
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    cut: fc.nat(40),
    put: fc.oneof(
      fc.uint8Array({ maxLength: 30 }),
      fc
        .constantFrom(
          '\r\n\r\n',
          '\u0000',
          '=?utf-8?B?',
          '<table><table>',
          'Content-Type: multipart/mixed; boundary=""\r\n',
          '\u202e',
        )
        .map((text) => Buffer.from(text)),
    ),
    times: fc.integer({ min: 1, max: 4 }),
  });
  await fc.assert(
    fc.asyncProperty(change, async ({ mail, at, cut, put, times }) => {
      const place = Math.floor(at * mail.length);
      const broken = Buffer.concat([mail.subarray(0, place), ...Array(times).fill(put), mail.subarray(place + cut)]);
      const one = await readMail(broken);
      if (isRefusal(one)) return;
      const news = readNews(one, known);
      // Only a known sender is believed, and only of names and figures that stand there.
      if (news.isSure) expect(one.from).toMatch(/@(?:.*\.)?quaymark\.test$/);
      for (const { ascii } of news.names) expect(`${one.subject} ${one.text}`.toLowerCase()).toContain(ascii);
    }),
    { numRuns: MUTATED, ...(process.env.SOAK ? {} : { seed: 24_112_026 }) },
  );
}, 600_000);

test('the largest text of the worst letters is read in under a second', () => {
  const known = { names: new Map(), accounts: [], style: '1,234.50' } as const;
  for (const piece of ['a', 'a.', 'transfer ', '1,', '12 de ', 'x@', '更新', 'wird ', "n'a "]) {
    const text = piece.repeat(200_000 / piece.length);
    const start = performance.now();
    readNews({ from: 'x@y.test', subject: text.slice(0, 1000), text }, known);
    expect(performance.now() - start, piece).toBeLessThan(3000);
  }
}, 60_000);
