'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
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
  const problem = (field: string) => (refused?.field?.startsWith(field) ? refused.message : null);

  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (key: string) => String(form.get(key) ?? '').trim();
    const answer = await saveRemindersAction({
      reminderDays: text('reminderDays')
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number),
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
    <form onSubmit={(event) => void save(event)}>
      <Section>
        <h2>Reminders by mail</h2>
        <Fields>
          <Field
            name="reminderDays"
            label="Days before a deadline"
            defaultValue={settings.reminderDays.join(', ')}
            hint="at once when a charge fails"
            problem={problem('reminderDays')}
          />
          <Field name="to" label="To" defaultValue={mail?.to ?? ''} hint="empty: no mails" problem={problem('to')} />
          <Field name="from" label="From" defaultValue={mail?.from ?? ''} problem={problem('from')} />
          <Field name="host" label="Mail server (SMTP)" defaultValue={mail?.host ?? ''} problem={problem('host')} />
          <Field
            name="port"
            label="Port"
            defaultValue={String(mail?.port ?? 587)}
            inputMode="numeric"
            problem={problem('port')}
          />
          <Field name="user" label="User" defaultValue={mail?.user ?? ''} />
          <Field
            label="Password"
            type="password"
            value={password}
            onChange={setPassword}
            hint={mail?.sealedPassword ? 'kept; write it only to change it' : 'sealed at once, never shown again'}
            problem={problem('password')}
          />
          <Field
            name="baseUrl"
            label="This program is at"
            defaultValue={settings.baseUrl}
            hint="for the links in mails"
            problem={problem('baseUrl')}
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
    </form>
  );
}
