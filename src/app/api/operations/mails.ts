import { isRefusal, refuse } from '@/core/refusal';
import { type MailRow, mail, mails, SettleMail, settleMail } from '@/usecases/mails/mails';
import { takeInMails, takeInPasted } from '@/usecases/mails/takeIn';
import { idsOfNames } from '@/usecases/names/ids';
import { idIn, textOf } from '../asked';
import { bodyOf, count, found } from '../documents/answers';
import { mailDocument, mailWithText, takenIn } from '../documents/mails';
import { documentOf, from, list } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

async function wantedMails({ deps, query }: Asked): Promise<MailRow[] | ReturnType<typeof refuse>> {
  const [limit, before] = [Number(query.get('limit') ?? 100), query.get('before')];
  if (!Number.isInteger(limit) || limit < 1 || limit > 1000)
    return refuse('query-invalid', 'limit is 1 to 1,000.', 'limit');
  if (before !== null && !/^[1-9]\d{0,8}$/.test(before))
    return refuse('query-invalid', 'before is the number of a mail.', 'before');
  const name = query.get('name');
  const ids = name === null ? null : await idsOfNames(deps, [name]);
  if (isRefusal(ids)) return ids;
  const [nameId] = ids?.values() ?? [];
  const text = query.get('q');
  return mails(deps, {
    limit,
    open: query.get('open') === 'true',
    ...(text ? { text } : {}),
    ...(nameId === undefined ? {} : { nameId }),
    ...(before === null ? {} : { before: Number(before) }),
  });
}

export const MAILS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/mails',
    summary: 'Mails of registrars and marketplaces, those that came last first',
    query: {
      open: { schema: { type: 'boolean' }, description: 'Only those that tell something nobody has decided about.' },
      q: { schema: { type: 'string' }, description: 'A text in sender, subject or mail.' },
      name: { schema: { type: 'string' }, description: 'A name that they speak of.' },
      before: { schema: { type: 'integer' }, description: 'The number that the page before ended with.' },
      limit: { schema: { type: 'integer', minimum: 1, maximum: 1000, default: 100 }, description: 'How many.' },
    },
    answer: documentOf<MailRow[]>()({ mails: from((rows: MailRow[]) => rows, list(mailDocument)) }),
    run: wantedMails,
  }),
  operation({
    method: 'POST',
    path: '/mails',
    summary: 'Bring a mail, or a mailbox of them: as its text, or as its octets in base64. Nothing is changed by it',
    bodySchema: bodyOf({ text: { type: 'string' }, content: { type: 'string', contentEncoding: 'base64' } }, []),
    status: 201,
    answer: takenIn,
    run: (asked) => {
      const content = textOf(asked, 'content');
      return content
        ? takeInMails(asked.deps, Buffer.from(content, 'base64'), 'received')
        : takeInPasted(asked.deps, textOf(asked, 'text'));
    },
  }),
  operation({
    method: 'GET',
    path: '/mails/{mailId}',
    summary: 'One mail with its text',
    answer: mailWithText,
    run: async (asked) => found(await mail(asked.deps, idIn(asked, 'mailId')), 'mail'),
  }),
  operation({
    method: 'POST',
    path: '/mails/{mailId}/settle',
    summary: 'Take over what a mail says of names, with the mail as evidence, or leave it',
    body: SettleMail,
    fills: { mailId: 'mailId' },
    answer: count,
    run: ({ deps, body }) => settleMail(deps, body),
  }),
];
