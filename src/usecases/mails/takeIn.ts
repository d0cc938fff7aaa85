import { type News, namesSpokenOf, proposalOf, readNews } from '@/core/news';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { instant, parseInstant } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { noteForeign } from '@/database/foreignTransfers';
import { selectLinks } from '@/database/links';
import { insertMail, type MailSource, selectNamesForNews, selectStandings } from '@/database/mails';
import { selectSettings } from '@/database/settings';
import { mailsIn, pastedMail, type ReadMail, readMail } from '@/formats/mail/readMail';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { LARGEST_MAILS } from '../limits';
import { command } from '../people/command';

/** What came of mails that were brought. */
export interface TakenIn {
  /** The numbers of those that are new, in their order. */
  readonly ids: readonly number[];
  /** How many were here already. */
  readonly known: number;
  /** How many could not be read. */
  readonly refused: number;
  /** How many of the new ones say something that may be taken over. */
  readonly open: number;
}

/** The most mails of one file. */
const MOST_MAILS = 1000;

/** Takes in a mail, or a mailbox file of them. Nothing of the ledger is changed: what follows is proposed. */
export const takeInMails = command(
  'takeInMails',
  async (deps: Deps, content: Uint8Array, source: MailSource): Promise<TakenIn | Refusal> => {
    if (content.byteLength > LARGEST_MAILS) return refuse('mails-too-large', 'Bring up to 32 MB of mails at a time.');
    const result = { ids: [] as number[], known: 0, refused: 0, open: 0 };
    const brought = mailsIn(content);
    if (brought.length > MOST_MAILS)
      return refuse('mails-too-many', 'Bring up to 1,000 mails at a time: split the file. None of it was taken in.');
    for (const raw of brought) {
      const mail = await readMail(raw);
      if (isRefusal(mail)) {
        result.refused += 1;
        continue;
      }
      note(result, await takeIn(deps, mail, source));
    }
    return result.refused > 0 && result.ids.length + result.known === 0
      ? refuse('mail-not-read', 'This is no mail that can be read. Save it as .eml or .mbox, or paste its text.')
      : result;
  },
);

/** Takes in the text of a mail as a person has pasted it; one with headers is read as a mail. */
export const takeInPasted = command('takeInPasted', async (deps: Deps, pasted: string): Promise<TakenIn | Refusal> => {
  if (pasted.trim() === '') return refuse('mail-empty', 'Paste the text of the mail.', 'text');
  if (/^(received|return-path|from|delivered-to|message-id|date|subject):\s/i.test(pasted.trimStart()))
    return takeInMails(deps, Buffer.from(pasted.trimStart(), 'utf8'), 'pasted');
  const result = { ids: [] as number[], known: 0, refused: 0, open: 0 };
  note(result, await takeIn(deps, pastedMail(pasted), 'pasted'));
  return result;
});

function note(result: { ids: number[]; known: number; open: number }, taken: { id: number; isOpen: boolean } | null) {
  if (taken === null) result.known += 1;
  else {
    result.ids.push(taken.id);
    result.open += taken.isOpen ? 1 : 0;
  }
}

async function newsOf(deps: Deps, mail: ReadMail, isPasted: boolean): Promise<News> {
  const { from, subject, text, signatures } = mail;
  const told = { from, subject, text, signatures, isPasted };
  const { database } = deps;
  const [names, accounts, links, { numberStyle }] = await Promise.all([
    selectNamesForNews(database, namesSpokenOf(told)),
    selectAccounts(database),
    selectLinks(database),
    selectSettings(database),
  ]);
  const hosts = new Map(links.map(({ accountId, host }) => [accountId, host]));
  return readNews(told, {
    names: new Map(names.map(({ ascii, id, accountId }) => [ascii, { id, accountId }])),
    accounts: accounts.map(({ id, label, registrar, currency }) => ({
      id,
      label,
      registrar,
      currency,
      host: hosts.get(id) ?? null,
    })),
    style: numberStyle,
  });
}

/** Keeps one mail with what follows from it. A transfer that nobody here asked for is an alarm at once. `null`: it is here already. */
async function takeIn(
  deps: Deps,
  mail: ReadMail,
  source: MailSource,
): Promise<{ readonly id: number; readonly isOpen: boolean } | null> {
  const news = await newsOf(deps, mail, source === 'pasted');
  return changing(deps, async (tx, { at }) => {
    const standings = await selectStandings(
      tx,
      news.names.map(({ nameId }) => nameId),
    );
    const open = new Set(
      news.isSure
        ? news.names.flatMap((name) => {
            const now = standings.get(name.nameId);
            return now && proposalOf(news.kind, name, now) ? [name.nameId] : [];
          })
        : [],
    );
    const { sentAt, from: sender, fromName: senderName, text: body, messageId, subject, signatures, raw } = mail;
    const id = await insertMail(
      tx,
      {
        messageId,
        source,
        cameAt: at,
        sentAt: sentAt === null ? null : (parseInstant(sentAt) ?? instant(sentAt)),
        sender,
        senderName,
        subject,
        body,
        raw,
        signatures,
      },
      news,
      open,
    );
    if (id === null) return null;
    if (news.isSure && news.kind === 'transfer asked')
      await noteForeign(
        tx,
        news.names.map(({ nameId, date }) => ({ nameId, requestedBy: null, actsBy: date?.at ?? null })),
        'mail',
        at,
      );
    return { id, isOpen: open.size > 0 };
  });
}
