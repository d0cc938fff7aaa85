'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { typedInFull } from '@/core/acquiring';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { HolderAddress } from '@/usecases/acquiring/addresses';
import type { RegistrationRow } from '@/usecases/acquiring/register';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { namePage } from '../../frame/pages';
import { AddressesPart } from './AddressesPart';
import { ByHandPart } from './ByHandPart';

const LOOK_AGAIN_MS = 900;

interface RegisteredScreenProps {
  readonly open: readonly RegistrationRow[];
  readonly settled: readonly RegistrationRow[];
  readonly addresses: readonly HolderAddress[];
}

/** What is being registered, what a person has to do or decide, and what came of the last ones. */
export function RegisteredScreen({ open, settled, addresses }: RegisteredScreenProps) {
  const router = useRouter();
  const { reload } = useLedger();
  const onLinks = open.filter(({ byHand, state }) => !byHand && state !== 'doubt');
  const byHand = open.filter((one) => !onLinks.includes(one));
  useTitle('Acquire', open.length === 0 ? 'registering' : `registering ${namesWords(open.length)}`);
  useEffect(() => {
    if (onLinks.length === 0) return;
    const timer = setInterval(() => router.refresh(), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [onLinks.length, router]);
  useEffect(() => {
    if (settled.length > 0) void reload();
  }, [settled.length, reload]);
  return (
    <Page>
      {open.length + settled.length === 0 && (
        <Empty title="Nothing is being registered." text="Names of the shortlist come here once they are agreed to.">
          <ButtonLink href="/acquire/shortlist" data-kind="primary">
            To the shortlist
          </ButtonLink>
        </Empty>
      )}
      {byHand.map((registration) => (
        <ByHandPart key={registration.id} registration={registration} />
      ))}
      {onLinks.length > 0 && <OnTheirWay registrations={onLinks} />}
      {settled.length > 0 && <Settled registrations={settled} />}
      {addresses.length > 0 && <AddressesPart addresses={addresses} />}
    </Page>
  );
}

const STATE_WORDS: Readonly<Partial<Record<RegistrationRow['state'], string>>> = {
  waiting: 'to be sent',
  sending: 'sent, no answer yet',
  pending: 'taken by the registrar, to be finished',
};

function OnTheirWay({ registrations }: { registrations: readonly RegistrationRow[] }) {
  return (
    <Section aria-label="On their way">
      <h2>On their way: {namesWords(registrations.length)}</h2>
      <Ruled aria-label="Names on their way">
        <tbody>
          {registrations.map(({ id, unicode, state, problem }) => (
            <tr key={id}>
              <td className="name">{unicode}</td>
              <td>
                {STATE_WORDS[state] ?? state}
                {problem && <div className="soft">{problem}</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** What came of each, with its receipt: both forms of the name, the sum, and the tax in it where the account's rules tell. */
function Settled({ registrations }: { registrations: readonly RegistrationRow[] }) {
  const { style, meta } = useLedger();
  const accounts = new Map((meta?.rules.accounts ?? []).map((account) => [account.id, account]));
  return (
    <Section aria-label="Settled">
      <h2>Settled</h2>
      <Wide>
        <Ruled aria-label="Registrations that are settled">
          <thead>
            <tr>
              <th>Name</th>
              <th>Account</th>
              <th>Until</th>
              <th className="figure">Charged</th>
              <th>Receipt</th>
              <th>What came of it</th>
            </tr>
          </thead>
          <tbody>
            {registrations.map(
              ({
                id,
                ascii,
                unicode,
                typed,
                accountId,
                state,
                newEnd,
                chargedMinor,
                currency,
                receipt,
                problem,
                person,
              }) => {
                const account = accounts.get(accountId);
                return (
                  <tr key={id}>
                    <td>
                      {state === 'done' ? (
                        <Link href={namePage(ascii)} className="name">
                          {unicode}
                        </Link>
                      ) : (
                        <span className="name">{unicode}</span>
                      )}
                      {ascii !== unicode && <div className="name soft">{ascii}</div>}
                      {state === 'done' && typedInFull(typed, unicode) !== unicode && (
                        <div className="caution">
                          differs from what was typed: {typed}. Give it back on its page while that works.
                        </div>
                      )}
                    </td>
                    <td>{account?.label}</td>
                    <td className="whole">{newEnd === null ? '' : dayWords(newEnd, style)}</td>
                    <td className="figure">
                      {chargedMinor === null ? '' : formatAmount({ minor: chargedMinor, currency })}
                      {chargedMinor !== null && taxIn(chargedMinor, account?.taxPercent ?? 0) > 0 && (
                        <div className="soft">
                          tax in it {formatAmount({ minor: taxIn(chargedMinor, account?.taxPercent ?? 0), currency })}
                        </div>
                      )}
                    </td>
                    <td>{receipt}</td>
                    <td className={state === 'done' && problem === null ? undefined : 'caution'}>
                      {problem ?? (state === 'done' ? 'registered' : 'not registered')}
                      {person !== null && <div className="soft">by {person}</div>}
                    </td>
                  </tr>
                );
              },
            )}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

/** The tax within a sum that holds it. */
const taxIn = (minor: number, percent: number) => minor - Math.round(minor / (1 + percent / 100));
