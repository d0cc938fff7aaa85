import type { BoxedMail } from './mailbox';

const DAY_MS = 86_400_000;

/** What the invented registrars of the demo have written to its office, by how many days ago. */
const WRITTEN: readonly {
  readonly ago: number;
  readonly from: string;
  readonly subject: string;
  readonly text: string;
}[] = [
  {
    ago: 18,
    from: 'Quaymark Names <service@quaymark.test>',
    subject: 'Payment failed: kelpkiln.com could not be renewed',
    text: 'Dear Harbour Office,\n\nour charge for kelpkiln.com was declined: the card on file has ended.\n\n  kelpkiln.com   $11.38\n\nTop up your balance, or give us another card.\n',
  },
  {
    ago: 6,
    from: 'Quaymark Names <service@quaymark.test>',
    subject: 'Renewal reminder',
    text: 'These names will be renewed automatically:\n\nwithyworks.net    2026-12-25   $13.19\nlarchworks.com    2027-01-19   $11.38\n',
  },
  {
    ago: 3,
    from: 'Bollard <post@bollard.test>',
    subject: 'Bestätigung der Verlängerung',
    text: 'Guten Tag,\n\nIhre Domain möwenspeicher.de wurde verlängert. Die Rechnung finden Sie in Ihrem Konto.\n',
  },
  {
    ago: 1,
    from: 'Domain Registry Office <invoice@names-office.test>',
    subject: 'FINAL NOTICE: renewal of copperbuoy.com',
    text: 'Your name copperbuoy.com will be renewed for USD 289.00. Pay by 2026-11-30 at https://pay.names-office.test/copperbuoy\n',
  },
];

/** The mailbox of the demo's office. */
export const officeMails = (now: number): BoxedMail[] =>
  WRITTEN.map(({ ago, from, subject, text }, i) => {
    const at = new Date(now - ago * DAY_MS);
    const head = [
      `From: ${from}`,
      'To: office@harbour-office.test',
      `Date: ${at.toUTCString().replace('GMT', '+0000')}`,
      `Message-ID: <${i + 1}.${at.toISOString().slice(0, 10)}@practice.test>`,
      `Subject: =?utf-8?B?${Buffer.from(subject, 'utf8').toString('base64')}?=`,
      'MIME-Version: 1.0',
      'Content-Type: text/plain; charset=utf-8',
      'Content-Transfer-Encoding: 8bit',
    ];
    return { uid: i + 1, at, raw: `${head.join('\r\n')}\r\n\r\n${text.replaceAll('\n', '\r\n')}` };
  });
