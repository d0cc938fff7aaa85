import { NEWS_KINDS } from '@/core/news';
import { MAIL_SOURCES, type MailRow, type MailView } from '@/usecases/mails/mails';
import type { TakenIn } from '@/usecases/mails/takeIn';
import { documentOf, from, instant, list, money, named, oneOf, orNull, termEnd, text, whole, yesNo } from '../kinds';

type Name = MailRow['names'][number];

const name = documentOf<Name>()({
  name: from(({ ascii }: Name) => ascii, text),
  date: orNull(termEnd),
  amount: orNull(money),
  state: oneOf('nothing', 'open', 'taken', 'left'),
});

const members = {
  id: whole,
  source: oneOf(...MAIL_SOURCES),
  cameAt: instant,
  sentAt: orNull(instant),
  sender: text,
  subject: text,
  signatures: list(text),
  kind: oneOf(...NEWS_KINDS),
  account: orNull(text),
  isSure: yesNo,
  names: list(name),
} as const;

export const mailDocument = named('Mail', documentOf<MailRow>()(members));

export const mailWithText = named('MailWithText', documentOf<MailView>()({ ...members, body: text }));

export const takenIn = named(
  'MailsTakenIn',
  documentOf<TakenIn>()({ ids: list(whole), known: whole, refused: whole, open: whole }),
);
