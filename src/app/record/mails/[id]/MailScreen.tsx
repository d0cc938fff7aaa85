'use client';
import styled from 'styled-components';
import type { Proposal } from '@/core/news';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { MailView } from '@/usecases/mails/mails';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { useTitle } from '../../../frame/PageTitle';
import { namePage } from '../../../frame/pages';
import { settleMailAction } from '../../actions';
import { Lines } from '../Lines';
import { proposalWords, tellsWords, whyNothing } from '../mailWords';

const Text = styled.pre`
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font: inherit;
  /* Registrars set their tables in letters of one width. */
  font-family: var(--font-names), monospace;
  max-width: 90ch;
  padding: 12px 16px;
  border: 1px solid var(--rule);
  background: var(--sheet);
`;

const STATE_WORDS = { nothing: '', open: '', taken: 'taken over', left: 'left as it is' } as const;

/** One mail: what it tells, what follows for each of its names, and its text. */
export function MailScreen({
  mail,
  proposals,
}: {
  mail: Omit<MailView, 'proposals'>;
  proposals: readonly (readonly [number, Proposal])[];
}) {
  const { style } = useLedger();
  const { ask, isBusy } = useSave({ ledger: true });
  useTitle('Mail', mail.subject.slice(0, 80));
  const follows = new Map(proposals);
  const open = mail.names.filter(({ nameId }) => follows.has(nameId)).map(({ nameId }) => nameId);
  const settle = (nameIds: readonly number[], as: 'take over' | 'leave') =>
    void ask(settleMailAction({ mailId: mail.id, nameIds, as }), (count) =>
      as === 'leave' ? 'Left as it is.' : `Taken over for ${count === 1 ? 'one name' : `${count} names`}.`,
    );
  return (
    <Page>
      <Head>
        <Answer>{tellsWords(mail)}.</Answer>
        <p>
          {mail.subject && <b>{mail.subject}. </b>}
          {mail.sender ? `From ${mail.senderName ? `${mail.senderName}, ` : ''}${mail.sender}` : 'Pasted'},{' '}
          {hourWords(mail.sentAt ?? mail.cameAt, style)}.{' '}
          {mail.signatures.length > 0
            ? `The server that took it in found ${mail.signatures.join(', ')}.`
            : mail.sender && 'Nobody has looked at its signature: a sender is easily feigned.'}
        </p>
      </Head>
      <Section aria-label="What follows">
        {open.length === 0 && <p className="soft">{whyNothing(mail)}</p>}
        {open.length > 1 && (
          <Actions>
            <Button data-kind="primary" isDisabled={isBusy} onPress={() => settle(open, 'take over')}>
              Take all over
            </Button>
            <Button isDisabled={isBusy} onPress={() => settle(open, 'leave')}>
              Leave all
            </Button>
          </Actions>
        )}
        <Lines>
          {mail.names.map((name) => {
            const proposal = follows.get(name.nameId);
            return (
              <li key={name.nameId}>
                <Link className="name" href={namePage(name.ascii)}>
                  {name.unicode}
                </Link>
                {proposal
                  ? `: ${proposalWords(proposal, style)}. `
                  : ` ${STATE_WORDS[name.state]}${name.person === null ? '' : `, by ${name.person}`}`}
                {proposal && (
                  <Actions>
                    <Button isDisabled={isBusy} onPress={() => settle([name.nameId], 'take over')}>
                      Take it over
                    </Button>
                    <Button isDisabled={isBusy} onPress={() => settle([name.nameId], 'leave')}>
                      Leave it
                    </Button>
                  </Actions>
                )}
              </li>
            );
          })}
        </Lines>
      </Section>
      <Section>
        <h2>The mail</h2>
        <p className="soft">
          As text alone. <a href={`/record/mails/${mail.id}/raw`}>Save it as it came</a>
        </p>
        <Text tabIndex={0} role="region" aria-label="Text of the mail">
          {mail.body.trim() || 'It has no text.'}
        </Text>
      </Section>
    </Page>
  );
}
