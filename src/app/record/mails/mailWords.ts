import type { NewsKind, Proposal } from '@/core/news';
import { formatAmount } from '@/ui/text/figures';
import { type DayStyle, namesWords, termEndWords } from '@/ui/text/words';
import type { MailRow } from '@/usecases/mails/mails';

const KIND_WORDS: Readonly<Record<NewsKind, string>> = {
  'renewal ahead': 'says that it will renew',
  'charge failed': 'says that it could not charge for',
  renewed: 'says that it has renewed',
  'transfer asked': 'says that it was asked to transfer away',
  'confirm address': 'wants an address confirmed for',
  sold: 'says that it has sold',
  other: 'writes about',
};

/** What a mail tells, in a sentence without its end. */
export function tellsWords({ account, sender, senderName, kind, names }: MailRow): string {
  const stranger = senderName || sender;
  const who = account ?? (stranger ? `${stranger}, no registrar of yours,` : 'A pasted text');
  const [only, other] = names;
  const about = only === undefined ? 'no name of yours' : other === undefined ? only.unicode : namesWords(names.length);
  return `${who} ${KIND_WORDS[kind]} ${about}`;
}

/** What follows for a name, as it would be written down. */
export function proposalWords(proposal: Proposal, style: DayStyle): string {
  switch (proposal.what) {
    case 'auto-renew':
      return proposal.setting === 'on' ? 'auto-renew is on' : 'auto-renew has stalled';
    case 'confirm mail':
      return `its holder's address is to be confirmed by ${termEndWords(proposal.by, style)}`;
    case 'term end':
      return `its term ends ${termEndWords(proposal.end, style)}${proposal.charged ? `, ${formatAmount(proposal.charged)} were charged` : ''}`;
  }
}

/** Why nothing is proposed. */
export function whyNothing({ isSure, names, kind, signatures }: MailRow): string {
  if (names.length === 0) return 'It speaks of no name of yours.';
  if (kind === 'other') return 'What it tells is not understood: read it.';
  if (signatures.some((found) => /^(dkim|dmarc)=fail/.test(found)))
    return 'Its signature does not hold: the sender is feigned, nothing is proposed.';
  if (!isSure) return 'Its sender is not known as the registrar of these names: nothing is proposed.';
  if (
    ['renewed', 'confirm address'].includes(kind) &&
    names.every(({ date, state }) => date === null && state === 'nothing')
  )
    return 'It names no day, or more than one: read it.';
  if (kind === 'transfer asked') return 'Today warns of it, unless it was asked for here.';
  return 'The ledger has it so already, or has decided.';
}
