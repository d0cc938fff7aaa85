import { AREAS, ROLES } from '@/core/people';
import type { AuditTold } from '@/usecases/people/audit';
import type { Waiting } from '@/usecases/people/confirmations';
import type { Invited } from '@/usecases/people/invitations';
import type { LetIn, MemberRow } from '@/usecases/people/members';
import { documentOf, from, instant, list, named, oneOf, orNull, text, whole, yesNo } from '../kinds';

export const memberDocument = named(
  'Member',
  documentOf<MemberRow>()({
    id: whole,
    kind: oneOf('person', 'program'),
    name: text,
    role: oneOf(...ROLES),
    scope: orNull(list(oneOf(...AREAS))),
    monthlyLimitMinor: orNull(whole),
    addedAt: instant,
    addedBy: orNull(text),
    endedAt: orNull(instant),
    hasPassPhrase: yesNo,
    passkeys: whole,
    openSessions: whole,
    recoveryCodesLeft: whole,
    invitedUntil: orNull(instant),
    tokenEndsAt: orNull(instant),
    usedAt: orNull(instant),
  }),
);

export const invitedDocument = named(
  'Invited',
  documentOf<Invited>()({ id: whole, name: text, token: text, endsAt: instant }),
);

export const letInDocument = named('LetIn', documentOf<LetIn>()({ id: whole, name: text, token: text }));

export const auditLine = named(
  'AuditLine',
  documentOf<AuditTold>()({
    id: whole,
    at: instant,
    who: text,
    action: text,
    detail: from(({ detail }: AuditTold) => JSON.stringify(detail), text),
    hash: text,
  }),
);

export const waitingDocument = named(
  'Waiting',
  documentOf<Waiting>()({
    id: whole,
    command: text,
    what: text,
    why: text,
    amountMinor: orNull(whole),
    askedBy: whole,
    askedByName: text,
    askedAt: instant,
    state: oneOf('waiting', 'confirming', 'done', 'refused', 'declined', 'withdrawn'),
    settledByName: orNull(text),
    settledAt: orNull(instant),
    answer: orNull(text),
    may: oneOf('settle', 'withdraw', 'see'),
  }),
);
