'use client';
import { useEffect } from 'react';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { countOf, restsWords, unknownLines } from '@/ui/text/todayWords';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { AutoRenewPart } from './AutoRenewPart';
import { EndsPart } from './EndsPart';
import { MeansPart } from './MeansPart';
import { PricesPart } from './PricesPart';

/** What nobody has said yet, each with the place that mends it for all at once. The list empties itself. */
export function UnknownScreen({ remindTo }: { remindTo: string | null }) {
  useTitle('Not known yet', 'what the forecast rests on');
  const { meta, problem, reload } = useLedger();
  const isRead = meta !== null;
  useEffect(() => {
    // The parts are there only after the ledger has been read: the browser looked for the one in the address before.
    if (isRead && window.location.hash) document.getElementById(window.location.hash.slice(1))?.scrollIntoView();
  }, [isRead]);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (meta === null) return <Loading text="Looking for what is not known" />;
  const { unknowns } = meta;
  const lines = unknownLines(unknowns);
  if (lines.length === 0 && remindTo === null)
    return (
      <Empty title="Everything is known that the forecast needs." text={`So ${restsWords(unknowns)}.`}>
        <ButtonLink href="/today" data-kind="primary">
          To Today
        </ButtonLink>
      </Empty>
    );
  const known = unknowns.names - unknowns.resting;
  return (
    <Page>
      <Head>
        <Answer>
          {unknowns.resting === 0
            ? 'The forecast rests on every name.'
            : `${countOf(unknowns.resting, 'name', 'names')} of ${unknowns.names.toLocaleString('en')} cannot be foretold yet.`}
        </Answer>
        <p>
          {known === 0
            ? 'The forecast rests on none so far. '
            : `The forecast rests on ${known.toLocaleString('en')}. `}
          What is said here goes from the list.
        </p>
      </Head>
      {unknowns.ends > 0 && <EndsPart count={unknowns.ends} />}
      {unknowns.prices.length > 0 && <PricesPart lines={unknowns.prices} count={unknowns.unpriced} />}
      {unknowns.accounts.length > 0 && <MeansPart accounts={unknowns.accounts} />}
      {unknowns.settings > 0 && <AutoRenewPart count={unknowns.settings} />}
      {remindTo !== null && (
        <Section id="mail" aria-label="The mail server">
          <h2>The mail server</h2>
          <p>
            Reminders are to go to {remindTo}, and no mail server has been said that would take them.{' '}
            <Link href="/setup/mail">Say it under Setup → Mail</Link>
          </p>
        </Section>
      )}
    </Page>
  );
}
