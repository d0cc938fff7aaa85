'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Notice, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { LinkRow } from '@/usecases/links/links';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { readAccountAction, removeLinkAction, saveLinkAction, testLinkAction } from '../../actions';

interface LinkSectionProps {
  readonly accountId: number;
  readonly link: LinkRow | null;
  /** Another key has sealed the password: it is typed again. */
  readonly needsLogin: boolean;
}

/** The link of an account to its registrar: over EPP, or none, and then everything there is done by hand. */
export function LinkSection({ accountId, link, needsLogin }: LinkSectionProps) {
  const { style } = useLedger();
  const [password, setPassword] = useState('');
  const { save, refused } = useSave({ ledger: true });

  const saveLink = async (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const asked = saveLinkAction({
      accountId,
      host: text('host'),
      port: text('port'),
      login: text('login'),
      password,
    });
    if ((await save(asked, 'Link saved.')) !== null) setPassword('');
  };

  return (
    <Section aria-label="Link to the registrar">
      <h2>Link to the registrar</h2>
      <p className="soft">
        {link
          ? `By EPP. ${link.readAt ? `Read ${dayWords(link.readAt, style)}` : 'Not read yet'}${link.polledAt ? `, messages taken in ${dayWords(link.polledAt, style)}` : ''}.`
          : 'No link: everything at this registrar is done by hand. Where it offers EPP (RFC 5730), the program can ask, renew and switch there itself.'}
      </p>
      {needsLogin && (
        <Notice data-kind="caution" role="alert">
          The password of this link was sealed with another key, so nothing is asked there. Write it again below, or put
          the old key back.
        </Notice>
      )}
      {link?.problem && <Notice data-kind="caution">{link.problem}</Notice>}
      <Form aria-label="Link to the registrar" refused={refused} onSubmit={saveLink}>
        <Section>
          <Fields>
            <Field name="host" label="EPP server" defaultValue={link?.host ?? ''} />
            <Field name="port" label="Port" defaultValue={String(link?.port ?? 700)} inputMode="numeric" />
            <Field name="login" label="Login" defaultValue={link?.login ?? ''} />
            <Field
              name="password"
              label="Password"
              type="password"
              value={password}
              onChange={setPassword}
              hint={link && !needsLogin ? 'kept; write it only to change it' : 'sealed at once, never shown again'}
            />
          </Fields>
          <Actions>
            <Button type="submit" data-kind={link ? undefined : 'primary'}>
              Save the link
            </Button>
            {link && <LinkActs accountId={accountId} />}
          </Actions>
        </Section>
      </Form>
    </Section>
  );
}

/** What can be done with a link that is set: tested, read from, removed. */
function LinkActs({ accountId }: { accountId: number }) {
  const router = useRouter();
  const { ask } = useSave({ ledger: true });
  const [busy, setBusy] = useState<'test' | 'read' | null>(null);
  const test = async () => {
    setBusy('test');
    await ask(testLinkAction(accountId), (answer) => `${answer} answers. The link works.`);
    setBusy(null);
  };

  const read = async () => {
    setBusy('read');
    const answer = await readAccountAction(accountId);
    setBusy(null);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else router.push(`/ledger/add/${answer}`);
  };

  const remove = () =>
    ask(removeLinkAction(accountId), 'The link is gone. Everything at this registrar is done by hand now.');

  return (
    <>
      <Button isDisabled={busy !== null} onPress={() => void test()}>
        {busy === 'test' ? 'Asking…' : 'Test it'}
      </Button>
      <Button isDisabled={busy !== null} onPress={() => void read()}>
        {busy === 'read' ? 'Reading…' : 'Read the whole account…'}
      </Button>
      <Button onPress={() => void remove()}>Remove the link</Button>
    </>
  );
}
