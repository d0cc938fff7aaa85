'use client';
import { useState } from 'react';
import { AREAS, type Area, type Role } from '@/core/people';
import { minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { areaWords } from '@/ui/text/peopleWords';
import { Fields, Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { addProgramAction } from './actions';
import { RoleFields } from './InvitePart';
import type { ToldOnce } from './toldOnce';

/** What a program is never for: it comes in by its token alone. */
const OFFERED = AREAS.filter((area) => area !== 'people' && area !== 'own');

/** Lets another program in, by a token that is told once. */
export function ProgramPart({ onTold }: { onTold: (told: ToldOnce) => void }) {
  const { save, refused, isBusy } = useSave();
  const [role, setRole] = useState<Role>('viewer');
  const [scope, setScope] = useState<readonly Area[]>([]);
  const [times, setTimes] = useState(0);
  const send = async (form: FormData) => {
    const asked = addProgramAction({
      name: textOf(form, 'name'),
      role,
      scope,
      days: textOf(form, 'days'),
      monthlyLimitMinor: minorIn(form, 'monthlyLimitMinor'),
    });
    const made = await save(asked, ({ name }) => `${name} is let in.`);
    if (!made) return;
    setTimes(times + 1);
    setScope([]);
    onTold({ what: `The token of ${made.name}: it sends it as “Authorization: Bearer …”.`, secret: made.token });
  };
  return (
    <Form key={times} aria-label="Let a program in" refused={refused} onSubmit={(form) => void send(form)}>
      <Section>
        <h2>Let a program in</h2>
        <Fields>
          <Field name="name" label="Name of the program" defaultValue="" />
          <RoleFields role={role} onRole={setRole} />
          <Field name="days" label="Days until the token ends" defaultValue="90" inputMode="numeric" />
        </Fields>
        <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
          <legend className="soft">It acts in these parts of what a {role} may do; in none, it only reads</legend>
          <Actions>
            {OFFERED.map((area) => (
              <Check
                key={area}
                isSelected={scope.includes(area)}
                onChange={(on) => setScope(on ? [...scope, area] : scope.filter((other) => other !== area))}
              >
                {areaWords(area)}
              </Check>
            ))}
          </Actions>
        </fieldset>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Make a token
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
