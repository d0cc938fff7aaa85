'use client';
import { useState } from 'react';
import { ButtonLink } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Head, Page } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { yearsWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import type { EndingView } from '../frame/views';
import { EndingPart } from './EndingPart';
import type { AccountNotes } from './NotesPart';
import { PricesTable, RatesUsed } from './PricesTable';
import { FIRST_WANTED, usePrices } from './usePrices';
import { WantedFields } from './WantedFields';

/** What holding a name costs over years: every ending at every account, and one ending in full. */
export function PricesScreen({ notes }: { notes: readonly AccountNotes[] }) {
  const { meta, problem, reload } = useLedger();
  const [wanted, setWanted] = useState(FIRST_WANTED);
  const [ending, setEnding] = useState<string | null>(null);
  const { lines, detail, shown } = usePrices(wanted, ending);
  useTitle('Prices', `what a name costs over ${yearsWords(wanted.years)}`);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (lines === null || meta === null) return <Loading text="Comparing the price lists" />;
  if (lines.length === 0)
    return (
      <Empty
        title="No price list is known."
        text="Bring in the price list of an account, or set a price there by hand."
      >
        <ButtonLink href="/setup/accounts" data-kind="primary">
          To the accounts
        </ButtonLink>
      </Empty>
    );
  return (
    <Page>
      {detail && <PricesAnswer detail={detail} years={wanted.years} />}
      <WantedFields wanted={wanted} onChange={setWanted} />
      <PricesTable lines={lines} shown={shown} onShow={setEnding} />
      <RatesUsed />
      {detail && <EndingPart detail={detail} wanted={wanted} notes={notes} />}
    </Page>
  );
}

/** The answer for the ending that is shown: where it is cheapest over these years, and for how much. */
function PricesAnswer({ detail, years }: { detail: EndingView; years: number }) {
  const { meta, homeCurrency } = useLedger();
  const path = detail.best[years - 1] ?? null;
  const labels = new Map(meta?.rules.accounts.map(({ id, label }) => [id, label]));
  const places = [...new Set(path?.payments.map(({ accountId }) => labels.get(accountId) ?? ''))];
  return (
    <Head>
      <Answer>
        {path === null
          ? `Nobody is known to sell .${detail.ending} for ${yearsWords(years)}.`
          : `.${detail.ending} costs ${formatAmount({ minor: path.totalMinor, currency: homeCurrency })} over ${yearsWords(years)} at the least: ${places.join(', then ')}.`}
      </Answer>
    </Head>
  );
}
