'use client';
import { useState } from 'react';
import { ROLES, type Role } from '@/core/people';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { roleWords } from '@/ui/text/peopleWords';
import { Fields, Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { inviteAction } from './actions';
import type { ToldOnce } from './toldOnce';

/** What somebody may do, and spend without a second person. */
export function RoleFields({
  role,
  onRole,
  limitMinor = null,
  roles = ROLES,
}: {
  role: Role;
  onRole: (role: Role) => void;
  limitMinor?: number | null;
  roles?: readonly Role[];
}) {
  const { homeCurrency } = useLedger();
  return (
    <>
      <Choice label="Role" value={role} onChange={onRole} options={roles.map((value) => ({ value, text: value }))} />
      <AmountField
        name="monthlyLimitMinor"
        label="Spends in a month alone, at most"
        currency={homeCurrency}
        amount={limitMinor === null ? null : { minor: limitMinor, currency: homeCurrency }}
        hint="empty: as much as the role may"
      />
    </>
  );
}

/** Invites somebody: what comes of it is a link, to be handed over. */
export function InvitePart({
  isFirst,
  origin,
  onTold,
}: {
  isFirst: boolean;
  origin: string;
  onTold: (told: ToldOnce) => void;
}) {
  const { save, refused, isBusy } = useSave();
  const [role, setRole] = useState<Role>(isFirst ? 'owner' : 'trader');
  const [times, setTimes] = useState(0);
  const send = async (form: FormData) => {
    const asked = inviteAction({
      name: textOf(form, 'name'),
      role,
      monthlyLimitMinor: minorIn(form, 'monthlyLimitMinor'),
    });
    const invited = await save(asked, ({ name }) => `${name} is invited.`);
    if (!invited) return;
    setTimes(times + 1);
    onTold({
      what: isFirst
        ? 'Open this link yourself, within seven days.'
        : `Give ${invited.name} this link; it holds for seven days.`,
      secret: `${origin}/invited/${invited.token}`,
    });
  };
  return (
    <Form key={times} aria-label="Invite" refused={refused} onSubmit={(form) => void send(form)}>
      <Section>
        <h2>{isFirst ? 'The first owner' : 'Invite somebody'}</h2>
        <Fields>
          <Field name="name" label="Name" defaultValue="" hint="as it shall stand in the history" />
          <RoleFields role={role} onRole={setRole} roles={isFirst ? ['owner'] : ROLES} />
        </Fields>
        <p className="soft">{roleWords(role).may}</p>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Make the link
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
