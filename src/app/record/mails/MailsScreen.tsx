'use client';
import { useRouter } from 'next/navigation';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { MailRow } from '@/usecases/mails/mails';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { BringMail } from './BringMail';
import { Lines } from './Lines';
import { tellsWords, whyNothing } from './mailWords';

/** What registrars and marketplaces told by mail: first what waits for somebody to look, then the rest. */
export function MailsScreen({
  open,
  rest,
  text,
}: {
  open: readonly MailRow[];
  rest: readonly MailRow[];
  text: string;
}) {
  useTitle('Mails', 'what registrars told');
  const router = useRouter();
  const find = (form: FormData) => {
    const q = textOf(form, 'q').trim();
    router.push(q ? `/record/mails?q=${encodeURIComponent(q)}` : '/record/mails');
  };
  return (
    <Page>
      <Head>
        <Answer>{answerOf(open.length, rest.length, text)}</Answer>
        <p>
          Drop a mail on any page, or bring it here. What it says of your names is proposed, never written by itself; it
          is kept as evidence. Links and pictures in it are never opened.
        </p>
      </Head>
      {open.length > 0 && <MailList label="Waiting for you" mails={open} />}
      <BringMail />
      <Section>
        <Form aria-label="Find a mail" refused={null} onSubmit={find}>
          <Actions style={{ alignItems: 'end' }}>
            <Field name="q" label="Find in all mails" defaultValue={text} />
            <Button type="submit">Find</Button>
          </Actions>
        </Form>
      </Section>
      {rest.length > 0 && <MailList label={text ? `With “${text}”` : 'All others'} mails={rest} />}
    </Page>
  );
}

function answerOf(open: number, rest: number, text: string): string {
  if (text)
    return rest === 0
      ? `No mail speaks of “${text}”.`
      : `${rest === 1 ? 'One mail speaks' : `${rest} mails speak`} of “${text}”.`;
  if (open > 0) return open === 1 ? 'One mail tells something new.' : `${open} mails tell something new.`;
  return rest === 0 ? 'No mail has been brought yet.' : 'No mail tells anything new.';
}

function MailList({ label, mails }: { label: string; mails: readonly MailRow[] }) {
  const { style } = useLedger();
  return (
    <Section aria-label={label}>
      <h2>{label}</h2>
      <Lines>
        {mails.map((mail) => (
          <li key={mail.id}>
            <Link href={`/record/mails/${mail.id}`}>{tellsWords(mail)}</Link>
            <span className="soft">
              , {dayWords(mail.sentAt ?? mail.cameAt, style)}.{' '}
              {mail.names.some(({ state }) => state === 'open') ? '' : whyNothing(mail)}
            </span>
          </li>
        ))}
      </Lines>
    </Section>
  );
}
