'use client';
import { useState } from 'react';
import { Link } from '@/ui/controls/Link';
import { Answer, Head, Notice, Page } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import type { MemberRow } from '@/usecases/people/members';
import { useTitle } from '../../frame/PageTitle';
import { InvitePart } from './InvitePart';
import { MembersTable } from './MembersTable';
import { ProgramPart } from './ProgramPart';
import { SecondPersonPart } from './SecondPersonPart';
import type { ToldOnce } from './toldOnce';

/** Who may come in, and what each may do. */
export function PeopleScreen({
  members,
  isGuarded,
  self,
  secondPerson,
  origin,
}: {
  members: readonly MemberRow[];
  isGuarded: boolean;
  /** Who looks, by number. */
  self: number | null;
  /** Whether a second person is asked. */
  secondPerson: boolean;
  origin: string;
}) {
  useTitle('People', 'who comes in, and what each may do');
  const [told, setTold] = useState<ToldOnce | null>(null);
  const people = members.filter(({ kind, endedAt }) => kind === 'person' && endedAt === null);
  const programs = members.filter(({ kind, endedAt }) => kind === 'program' && endedAt === null);
  const ended = members.filter(({ endedAt }) => endedAt !== null);
  return (
    <Page>
      <Head>
        <Answer>{answerOf(people, isGuarded)}</Answer>
        {!isGuarded && (
          <p>
            Whoever sits at this machine does everything. Invite yourself as the first owner, and everybody signs in
            from then on.
          </p>
        )}
      </Head>
      {told && (
        <Notice role="status">
          {told.what} It is not shown again. <code>{told.secret}</code>
        </Notice>
      )}
      {people.length > 0 && (
        <MembersTable label="People" members={people} self={self} onTold={setTold} origin={origin} />
      )}
      <InvitePart isFirst={!isGuarded} origin={origin} onTold={setTold} />
      {isGuarded && people.length > 1 && <SecondPersonPart isAsked={secondPerson} />}
      {isGuarded && (
        <>
          {programs.length > 0 && (
            <MembersTable label="Programs" members={programs} self={self} onTold={setTold} origin={origin} />
          )}
          <ProgramPart onTold={setTold} />
        </>
      )}
      <p>
        <Link href="/setup/people/audit">Who did what</Link>: every sign-in, command and change of what somebody may do,
        line by line.
      </p>
      {ended.length > 0 && (
        <p className="soft">Without access now, in the history still: {ended.map(({ name }) => name).join(', ')}.</p>
      )}
    </Page>
  );
}

function answerOf(people: readonly MemberRow[], isGuarded: boolean): string {
  if (!isGuarded) return 'Nobody needs to sign in yet.';
  const invited = people.filter(({ hasPassPhrase, passkeys }) => !hasPassPhrase && passkeys === 0).length;
  const inside = people.length - invited;
  const signIn = countOf(inside, 'person signs in', 'people sign in');
  return invited === 0 ? `${signIn}.` : `${signIn}; ${invited === 1 ? 'one is' : `${invited} are`} invited.`;
}
