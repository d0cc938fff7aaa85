import { createHash } from 'node:crypto';
import { convert } from 'html-to-text';
import PostalMime from 'postal-mime';
import { type Refusal, refuse } from '@/core/refusal';

/** A mail as far as it is read. Nothing in it is opened, fetched or shown as anything but text. */
export interface ReadMail {
  /** What its Message-ID says; else made of its octets, so that the same mail is known again. */
  readonly messageId: string;
  /** The address that it says it is from, lower case; empty where it says none. */
  readonly from: string;
  readonly fromName: string;
  readonly to: readonly string[];
  readonly subject: string;
  /** When it says that it was sent, ISO 8601; `null` where it does not. */
  readonly sentAt: string | null;
  readonly text: string;
  /** What servers on the way found of its signatures (RFC 8601 Authentication-Results): each method with its result. */
  readonly signatures: readonly string[];
  readonly raw: Uint8Array;
}

const MOST_TEXT = 200_000;
/** Deeper and larger than any mail of a registrar. */
const LIMITS = { maxNestingDepth: 30, maxHeadersSize: 256 * 1024 } as const;

/** What a mailbox file begins each of its mails with (RFC 4155). */
const MBOX = /^From \S+ .*\d{4}\r?$/m;

/** The mails of a mailbox file, or the one of a mail file: their octets. */
export function mailsIn(content: Uint8Array): Uint8Array[] {
  const text = Buffer.from(content).toString('latin1');
  if (!/^From \S+ .*\d{4}\r?\n/.test(text)) return [content];
  return text
    .split(/^(?=From \S+ .*\d{4}\r?$)/m)
    .map((one) =>
      one
        .replace(MBOX, '')
        .replace(/^\r?\n/, '')
        .replace(/^>(>*From )/gm, '$1'),
    )
    .filter((one) => one.trim() !== '')
    .map((one) => Buffer.from(one, 'latin1'));
}

const clean = (text: string) =>
  text
    .replaceAll('\u0000', '')
    .replace(/\r\n?/g, '\n')
    .replace(/[\u00a0\u202f]/g, ' ')
    .slice(0, MOST_TEXT);

/** HTML as the text that a person would read: no links, no pictures, tables row by row. */
function textOfHtml(html: string): string {
  return convert(html.slice(0, 2 * MOST_TEXT), {
    wordwrap: false,
    limits: { maxDepth: 50, maxChildNodes: 5000, maxInputLength: 2 * MOST_TEXT },
    selectors: [
      { selector: 'a', options: { ignoreHref: true } },
      { selector: 'img', format: 'skip' },
      { selector: 'style', format: 'skip' },
      { selector: 'script', format: 'skip' },
      {
        selector: 'table',
        format: 'dataTable',
        options: { colSpacing: 2, rowSpacing: 0, uppercaseHeaderCells: false },
      },
    ],
  });
}

/** Reads one mail (RFC 5322, MIME). Refused: what is none. */
export async function readMail(raw: Uint8Array): Promise<ReadMail | Refusal> {
  const parsed = await new PostalMime(LIMITS).parse(raw).catch(() => null);
  const isMail = parsed && (parsed.subject !== undefined || parsed.from !== undefined || parsed.date !== undefined);
  if (!isMail) return refuse('mail-not-read', 'This is no mail that can be read. Save it as .eml, or paste its text.');
  const text = parsed.text?.trim() ? parsed.text : textOfHtml(parsed.html ?? '');
  const hash = createHash('sha256').update(raw).digest('hex').slice(0, 32);
  const sent = parsed.date ? new Date(parsed.date) : null;
  return {
    messageId: clean(parsed.messageId?.trim() || `no-id-${hash}`).slice(0, 400),
    from: clean(parsed.from?.address ?? '')
      .toLowerCase()
      .slice(0, 254),
    fromName: clean(parsed.from?.name ?? '').slice(0, 200),
    to: (parsed.to ?? [])
      .flatMap(({ address }) => (address ? [clean(address).toLowerCase().slice(0, 254)] : []))
      .slice(0, 50),
    subject: clean(parsed.subject ?? '')
      .replace(/\s+/g, ' ')
      .slice(0, 1000),
    sentAt: sent && !Number.isNaN(sent.getTime()) ? sent.toISOString() : null,
    text: clean(text),
    // The topmost is that of the server which took it in: whoever sent it can have written the others.
    signatures: [
      ...(parsed.headers.find(({ key }) => key === 'authentication-results')?.value ?? '').matchAll(
        /\b(dkim|spf|dmarc)=(\w{1,20})/gi,
      ),
    ].map(([found]) => found.toLowerCase()),
    raw,
  };
}

/** A mail that was pasted as a person sees it: its text, the first line of which may be its subject. */
export function pastedMail(pasted: string): ReadMail {
  const text = clean(pasted);
  const raw = Buffer.from(text, 'utf8');
  const [first = ''] = text.trim().split('\n', 1);
  return {
    messageId: `pasted-${createHash('sha256').update(raw).digest('hex').slice(0, 32)}`,
    from: /[\w.+-]{1,64}@[\w.-]{1,180}\.\w{2,20}/.exec(text)?.[0].toLowerCase() ?? '',
    fromName: '',
    to: [],
    subject: first.slice(0, 200),
    sentAt: null,
    text,
    signatures: [],
    raw,
  };
}
