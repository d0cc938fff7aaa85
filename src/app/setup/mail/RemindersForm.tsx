'use client';
import { useState } from 'react';
import { readWholeNumbers } from '@/formats/lists/readWords';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import type { Settings } from '@/usecases/settings';
import { useSave } from '../../acts/useSave';
import { saveRemindersAction, sendRemindersAction, testMailAction, withdrawLinksAction } from '../actions';

/** Reminders by mail: when, to whom, and through which server. */
export function RemindersForm({ settings }: { settings: Settings }) {
  const [password, setPassword] = useState('');
  const { save, ask, refused, isBusy } = useSave();
  const { mail } = settings;

  const saveReminders = async (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const asked = saveRemindersAction({
      reminderDays: readWholeNumbers(text('reminderDays')),
      to: text('to'),
      from: text('from'),
      host: text('host'),
      port: text('port'),
      user: text('user'),
      password,
      baseUrl: text('baseUrl'),
    });
    const saved = await save(asked, text('to') === '' ? 'Saved. No mails are sent.' : 'Saved.');
    if (saved !== null) setPassword('');
  };
  const send = () =>
    ask(sendRemindersAction(), (names) =>
      names === 0 ? 'Nothing new to remind of.' : `Reminded of ${namesWords(names)}.`,
    );
  const withdraw = () =>
    ask(withdrawLinksAction(), (links) =>
      links === 0 ? 'No links were open.' : `${links} links hold no more. The next mail has new ones.`,
    );

  return (
    <Form aria-label="Reminders by mail" refused={refused} onSubmit={saveReminders}>
      <Section>
        <h2>Reminders by mail</h2>
        <ReminderFields settings={settings} password={password} onPassword={setPassword} />
        <Actions>
          <Button type="submit">Save the reminders</Button>
          {mail && (
            <Button
              isDisabled={isBusy}
              onPress={() => void ask(testMailAction(), (to) => `Sent to ${to}. Look there.`)}
            >
              Send a test mail
            </Button>
          )}
          {mail && (
            <Button isDisabled={isBusy} onPress={() => void send()}>
              Send what is due now
            </Button>
          )}
          {mail && <Button onPress={() => void withdraw()}>Withdraw the links in mails</Button>}
        </Actions>
      </Section>
    </Form>
  );
}

function ReminderFields({
  settings,
  password,
  onPassword,
}: {
  settings: Settings;
  password: string;
  onPassword: (password: string) => void;
}) {
  const { mail } = settings;
  return (
    <Fields>
      <Field
        name="reminderDays"
        label="Days before a deadline"
        defaultValue={settings.reminderDays.join(', ')}
        hint="at once when a charge fails"
      />
      <Field name="to" label="To" defaultValue={mail?.to ?? settings.remindTo ?? ''} hint="empty: no mails" />
      <Field name="from" label="From" defaultValue={mail?.from ?? ''} />
      <Field name="host" label="Mail server (SMTP)" defaultValue={mail?.host ?? ''} />
      <Field name="port" label="Port" defaultValue={String(mail?.port ?? 587)} inputMode="numeric" />
      <Field name="user" label="User" defaultValue={mail?.user ?? ''} />
      <Field
        name="password"
        label="Password"
        type="password"
        value={password}
        onChange={onPassword}
        hint={mail?.sealedPassword ? 'kept; write it only to change it' : 'sealed at once, never shown again'}
      />
      <Field
        name="baseUrl"
        label="Address of this program"
        defaultValue={settings.baseUrl}
        hint="for the links in mails"
      />
    </Fields>
  );
}
