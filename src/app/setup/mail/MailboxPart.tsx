'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { Settings } from '@/usecases/settings';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { readMailboxAction, saveMailboxAction, saveReceivingAction } from '../actions';

/** Mails of registrars: fetched from a mailbox, or received at an address of the office's own. */
export function MailboxPart({ settings: { mailbox, receiving } }: { settings: Settings }) {
  const { style } = useLedger();
  const [password, setPassword] = useState('');
  const { save, ask, refused, isBusy } = useSave();
  const saveBox = async (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const asked = saveMailboxAction({
      host: text('host'),
      port: text('port'),
      user: text('user'),
      folder: text('folder'),
      password,
    });
    if (
      (await save(asked, text('host') === '' ? 'No mailbox is read.' : 'Saved. It is read every two minutes.')) !== null
    )
      setPassword('');
  };
  return (
    <>
      <Form aria-label="Mailbox" refused={refused} onSubmit={(form) => void saveBox(form)}>
        <Section>
          <h2>Mails of registrars, fetched</h2>
          <p className={mailbox?.problem ? 'caution' : 'soft'}>
            {mailbox === null
              ? 'A mailbox to which registrars write is read by IMAP. Nothing in it is changed.'
              : (mailbox.problem ??
                (mailbox.readAt === null ? 'Not read yet.' : `Last read ${hourWords(mailbox.readAt, style)}.`))}
          </p>
          <Fields>
            <Field
              name="host"
              label="Mail server (IMAP)"
              defaultValue={mailbox?.host ?? ''}
              hint="empty: none is read"
            />
            <Field name="port" label="Port" defaultValue={String(mailbox?.port ?? 993)} inputMode="numeric" />
            <Field name="user" label="User" defaultValue={mailbox?.user ?? ''} />
            <Field
              name="password"
              label="Password"
              type="password"
              value={password}
              onChange={setPassword}
              hint={mailbox ? 'kept; write it only to change it' : 'sealed at once, never shown again'}
            />
            <Field name="folder" label="Folder" defaultValue={mailbox?.folder ?? 'INBOX'} />
          </Fields>
          <Actions>
            <Button type="submit" isDisabled={isBusy}>
              Save the mailbox
            </Button>
            {mailbox && (
              <Button
                isDisabled={isBusy}
                onPress={() =>
                  void ask(readMailboxAction(), (count) =>
                    count === 0 ? 'Nothing new there.' : count === 1 ? 'One new mail.' : `${count} new mails.`,
                  )
                }
              >
                Read it now
              </Button>
            )}
          </Actions>
        </Section>
      </Form>
      <ReceivingForm receiving={receiving} />
    </>
  );
}

function ReceivingForm({ receiving }: Pick<Settings, 'receiving'>) {
  const { save, refused, isBusy } = useSave();
  const saveAddress = (form: FormData) =>
    void save(
      saveReceivingAction({ address: textOf(form, 'address'), port: textOf(form, 'port') }),
      textOf(form, 'address') === ''
        ? 'No mails are received here.'
        : 'Saved. Mails are taken in there within seconds.',
    );
  return (
    <Form aria-label="Receiving" refused={refused} onSubmit={saveAddress}>
      <Section>
        <h2>Mails of registrars, received</h2>
        <p className="soft">
          The office’s own mail server may hand mails for an address on to this machine by SMTP. Only that address is
          received, and nothing is sent on.
        </p>
        <Fields>
          <Field
            name="address"
            label="Address"
            defaultValue={receiving?.address ?? ''}
            hint="empty: none is received"
          />
          <Field
            name="port"
            label="Port on 127.0.0.1"
            defaultValue={String(receiving?.port ?? 2525)}
            inputMode="numeric"
          />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Save the address
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
