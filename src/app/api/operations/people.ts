import { refuse } from '@/core/refusal';
import { auditPage } from '@/usecases/people/audit';
import {
  ANSWERS,
  type ConfirmationAnswer,
  setSecondPerson,
  settleConfirmation,
  type Waiting,
  waitingFor,
} from '@/usecases/people/confirmations';
import { invite, inviteAgain } from '@/usecases/people/invitations';
import { addProgram, changeMember, endMember, type MemberRow, members } from '@/usecases/people/members';
import { InviteForm, MemberForm, ProgramForm } from '@/usecases/people/requests';
import { endSessionsOf } from '@/usecases/people/sessions';
import { idIn } from '../asked';
import { bodyOf, carriedOut, count, said } from '../documents/answers';
import { auditLine, invitedDocument, letInDocument, memberDocument, waitingDocument } from '../documents/people';
import { documentOf, from, list } from '../kinds';
import { type AnyOperation, operation } from '../operation';

const MOST_LINES = 500;
type Lines = Awaited<ReturnType<typeof auditPage>>;

export const PEOPLE: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/people',
    summary: 'Who is set up, people and programs, with what each may do',
    answer: documentOf<MemberRow[]>()({ people: from((rows: MemberRow[]) => rows, list(memberDocument)) }),
    run: ({ deps }) => members(deps),
  }),
  operation({
    method: 'POST',
    path: '/people',
    isSecret: true,
    summary: 'Invite somebody; answers the token of the link `/invited/{token}`, this once',
    body: InviteForm,
    status: 201,
    answer: invitedDocument,
    run: ({ deps, body }) => invite(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/people/programs',
    isSecret: true,
    summary: 'Let a program in; answers its token, this once',
    body: ProgramForm,
    status: 201,
    answer: letInDocument,
    run: ({ deps, body }) => addProgram(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/people/{id}/invitation',
    isSecret: true,
    summary: 'Another link for somebody; the one before holds no longer',
    answer: invitedDocument,
    run: (asked) => inviteAgain(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'PUT',
    path: '/people/second-person',
    summary: 'Whether restores, transfers, registrations, sales and what is above a limit wait for a second person',
    bodySchema: bodyOf({ secondPerson: { type: 'boolean' } }),
    answer: carriedOut,
    run: ({ deps, body }) => {
      const { secondPerson } = (body ?? {}) as { secondPerson?: unknown };
      return typeof secondPerson === 'boolean'
        ? setSecondPerson(deps, secondPerson)
        : Promise.resolve(refuse('request-invalid', 'Say yes or no.', 'secondPerson'));
    },
  }),
  operation({
    method: 'GET',
    path: '/confirmations',
    summary: 'What waits for a second person',
    answer: documentOf<Waiting[]>()({ waiting: from((rows: Waiting[]) => rows, list(waitingDocument)) }),
    run: ({ deps }) => waitingFor(deps),
  }),
  operation({
    method: 'POST',
    path: '/confirmations/{id}',
    summary:
      'Confirm what waits for a second person, decline it, or take one’s own back; a person does that, no program',
    bodySchema: bodyOf({ answer: { type: 'string', enum: [...ANSWERS] } }),
    answer: said,
    run: (asked) => settleConfirmation(asked.deps, idIn(asked), (asked.body as { answer: ConfirmationAnswer })?.answer),
  }),
  operation({
    method: 'PUT',
    path: '/people/{id}',
    summary: 'Change what somebody may do; with another role he signs in again',
    body: MemberForm,
    answer: carriedOut,
    run: (asked) => changeMember(asked.deps, idIn(asked), asked.body),
  }),
  operation({
    method: 'DELETE',
    path: '/people/{id}',
    summary: 'End somebody’s access at once; his name stays in the history',
    answer: carriedOut,
    run: (asked) => endMember(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/people/{id}/end-sessions',
    summary: 'End every session of somebody; answers how many',
    answer: count,
    run: (asked) => endSessionsOf(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/audit',
    summary: 'Who did what, the newest first, each line with its hash',
    query: { before: { schema: { type: 'integer', minimum: 1 }, description: 'Lines before this number.' } },
    answer: documentOf<Lines>()({ lines: from((lines: Lines) => lines, list(auditLine)) }),
    run: ({ deps, query }) => {
      const before = Number(query.get('before') ?? Number.MAX_SAFE_INTEGER);
      return auditPage(deps, Number.isSafeInteger(before) ? before : Number.MAX_SAFE_INTEGER, MOST_LINES);
    },
  }),
];
