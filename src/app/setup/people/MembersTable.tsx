'use client';
import { useState } from 'react';
import type { Role } from '@/core/people';
import type { Instant } from '@/core/time';
import { minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { areaWords } from '@/ui/text/peopleWords';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { hourWords } from '@/ui/text/words';
import type { MemberRow } from '@/usecases/people/members';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { changeMemberAction, endMemberAction, endSessionsAction, inviteAgainAction } from './actions';
import { RoleFields } from './InvitePart';
import type { ToldOnce } from './toldOnce';

interface MembersTableProps {
  readonly label: string;
  readonly members: readonly MemberRow[];
  /** Who looks, by number: nobody ends his own access here. */
  readonly self: number | null;
  readonly origin: string;
  readonly onTold: (told: ToldOnce) => void;
}

/** Who is set up, with what each may do, how he comes in, and what can be done about it. */
export function MembersTable({ label, members, self, origin, onTold }: MembersTableProps) {
  const { style, homeCurrency } = useLedger();
  const [changing, setChanging] = useState<number | null>(null);
  return (
    <Section aria-label={label}>
      <h2>{label}</h2>
      <Wide>
        <Ruled data-list data-middle aria-label={label}>
          <thead>
            <tr>
              <th style={{ width: 170 }}>Name</th>
              <th style={{ width: 110 }}>Role</th>
              <th>Comes in by</th>
              <th style={{ width: 150 }}>Last seen</th>
              <th style={{ width: 350 }}>
                <span className="visually-hidden">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {members.map((member) => (
              <tr key={member.id}>
                <td>{member.name}</td>
                <td>{member.role}</td>
                <td className="sentence">
                  {waysOf(member, (at) => hourWords(at, style))}
                  {member.monthlyLimitMinor !== null && (
                    <div className="soft">
                      {formatAmount({ minor: member.monthlyLimitMinor, currency: homeCurrency })} a month alone
                    </div>
                  )}
                  {changing === member.id && <ChangeForm member={member} onDone={() => setChanging(null)} />}
                </td>
                <td>{member.usedAt === null ? 'not yet' : hourWords(member.usedAt, style)}</td>
                <td>
                  <MemberActions
                    member={member}
                    isSelf={member.id === self}
                    origin={origin}
                    onTold={onTold}
                    onChange={() => setChanging(changing === member.id ? null : member.id)}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

/** How somebody comes in, in words. */
function waysOf(member: MemberRow, when: (at: Instant) => string): string {
  if (member.kind === 'program') {
    const acts =
      member.scope === null
        ? 'all its role may'
        : member.scope.length === 0
          ? 'reads only'
          : member.scope.map(areaWords).join(', ');
    return `Token until ${member.tokenEndsAt === null ? 'it is made' : when(member.tokenEndsAt)}: ${acts}`;
  }
  const keys = member.passkeys === 1 ? 'a passkey' : member.passkeys > 1 ? `${member.passkeys} passkeys` : null;
  const ways = [keys, member.hasPassPhrase ? 'a pass phrase with codes' : null].filter(Boolean).join(', ');
  if (ways === '') return member.invitedUntil === null ? 'Nothing yet' : `Invited until ${when(member.invitedUntil)}`;
  const sessions = member.openSessions === 1 ? '1 session' : `${member.openSessions} sessions`;
  return `${ways.charAt(0).toUpperCase()}${ways.slice(1)}; ${sessions}, ${member.recoveryCodesLeft} recovery codes left`;
}

function MemberActions({
  member,
  isSelf,
  origin,
  onTold,
  onChange,
}: Pick<MembersTableProps, 'origin' | 'onTold'> & { member: MemberRow; isSelf: boolean; onChange: () => void }) {
  const { ask, isBusy } = useSave();
  const again = async () => {
    const invited = await ask(inviteAgainAction(member.id), 'The link before holds no longer.');
    if (invited)
      onTold({
        what: `Give ${invited.name} this link; it holds for seven days.`,
        secret: `${origin}/invited/${invited.token}`,
      });
  };
  const isPerson = member.kind === 'person';
  return (
    <Actions>
      {isPerson && (
        <Button
          data-kind="plain"
          aria-label={`Change what ${member.name} may do`}
          isDisabled={isBusy}
          onPress={onChange}
        >
          Change
        </Button>
      )}
      {isPerson && (
        <Button
          data-kind="plain"
          aria-label={`A new link for ${member.name}`}
          isDisabled={isBusy}
          onPress={() => void again()}
        >
          New link
        </Button>
      )}
      {member.openSessions > 0 && !isSelf && (
        <Button
          data-kind="plain"
          aria-label={`End the sessions of ${member.name}`}
          isDisabled={isBusy}
          onPress={() => void ask(endSessionsAction(member.id), `${member.name} signs in again.`)}
        >
          End sessions
        </Button>
      )}
      {!isSelf && (
        <Button
          data-kind="plain"
          aria-label={`End the access of ${member.name}`}
          isDisabled={isBusy}
          onPress={() => void ask(endMemberAction(member.id), `${member.name} comes in no more.`)}
        >
          End access
        </Button>
      )}
    </Actions>
  );
}

function ChangeForm({ member, onDone }: { member: MemberRow; onDone: () => void }) {
  const { save, refused, isBusy } = useSave();
  const [role, setRole] = useState<Role>(member.role);
  const send = async (form: FormData) => {
    const asked = changeMemberAction(member.id, { role, monthlyLimitMinor: minorIn(form, 'monthlyLimitMinor') });
    const words = role === member.role ? 'Kept.' : `${member.name} is a ${role} now, and signs in again.`;
    if ((await save(asked, words)) !== null) onDone();
  };
  return (
    <Form aria-label={`What ${member.name} may do`} refused={refused} onSubmit={(form) => void send(form)}>
      <Fields>
        <RoleFields role={role} onRole={setRole} limitMinor={member.monthlyLimitMinor} />
      </Fields>
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Keep it so
        </Button>
      </Actions>
    </Form>
  );
}
