'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { readWholeNumbers } from '@/formats/lists/readWords';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Section } from '@/ui/text/Sheet';
import type { Settings } from '@/usecases/settings';
import { saveRemindersAction, sendRemindersAction, withdrawLinksAction } from '../actions';

/** Reminders by mail: when, to whom, and through which server. */
export function RemindersForm({ settings }: { settings: Settings }) {
  const router = useRouter();
  const [password, setPassword] = useState('');
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [busy, setBusy] = useState(false);
  const { mail } = settings;

  const save = async (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const answer = await saveRemindersAction({
      reminderDays: readWholeNumbers(text('reminderDays')),
      to: text('to'),
      from: text('from'),
      host: text('host'),
      port: text('port'),
      user: text('user'),
      password,
      baseUrl: text('baseUrl'),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    setPassword('');
    report({ text: text('to') === '' ? 'Saved. No mails are sent.' : 'Saved.' });
    router.refresh();
  };

  const send = async () => {
    setBusy(true);
    const answer = await sendRemindersAction();
    setBusy(false);
    report(
      isRefusal(answer)
        ? { text: answer.message, problem: true }
        : { text: answer === 0 ? 'Nothing new to remind of.' : `Reminded of ${answer} names.` },
    );
  };

  const withdraw = async () => {
    const links = await withdrawLinksAction();
    report({ text: links === 0 ? 'No links were open.' : `${links} links hold no more. The next mail has new ones.` });
  };

  return (
    <Form aria-label="Reminders by mail" refused={refused} onSubmit={save}>
      <Section>
        <h2>Reminders by mail</h2>
        <Fields>
          <Field
            name="reminderDays"
            label="Days before a deadline"
            defaultValue={settings.reminderDays.join(', ')}
            hint="at once when a charge fails"
          />
          <Field name="to" label="To" defaultValue={mail?.to ?? ''} hint="empty: no mails" />
          <Field name="from" label="From" defaultValue={mail?.from ?? ''} />
          <Field name="host" label="Mail server (SMTP)" defaultValue={mail?.host ?? ''} />
          <Field name="port" label="Port" defaultValue={String(mail?.port ?? 587)} inputMode="numeric" />
          <Field name="user" label="User" defaultValue={mail?.user ?? ''} />
          <Field
            name="password"
            label="Password"
            type="password"
            value={password}
            onChange={setPassword}
            hint={mail?.sealedPassword ? 'kept; write it only to change it' : 'sealed at once, never shown again'}
          />
          <Field
            name="baseUrl"
            label="This program is at"
            defaultValue={settings.baseUrl}
            hint="for the links in mails"
          />
        </Fields>
        <Actions>
          <Button type="submit">Save the reminders</Button>
          {mail && (
            <Button isDisabled={busy} onPress={() => void send()}>
              Send what is due now
            </Button>
          )}
          {mail && <Button onPress={() => void withdraw()}>Withdraw the links in mails</Button>}
        </Actions>
      </Section>
    </Form>
  );
}
