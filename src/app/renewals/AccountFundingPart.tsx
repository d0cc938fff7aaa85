'use client';
import { useMemo, useState } from 'react';
import type { Instant } from '@/core/time';
import { BalanceChart, type BalancePoint } from '@/ui/chart/BalanceChart';
import { MonthBars } from '@/ui/chart/MonthBars';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import { useRenew } from '../acts/renew/useRenew';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { FundingView } from '../frame/views';
import { ChargesTable, MonthsTable } from './ChargesTable';
import { MendForm } from './MendForm';

/** One account's coming charges: the balance over time, by month, and charge by charge, with what would mend a failure. */
export function AccountFundingPart({ funding, until }: { funding: FundingView; until: Instant }) {
  const { style, today } = useLedger();
  const { account, charges, lapsing, lapsingCount } = funding;
  const renew = useRenew();
  const [mending, setMending] = useState<'top up' | 'card' | null>(null);
  const points = useMemo(() => pointsOf(funding, today, until), [funding, today, until]);
  const card = account.paymentMethods.find((method) => method.kind === 'card');
  return (
    <Section aria-label={`Funding of ${account.label}`}>
      <h2>{account.label}</h2>
      {account.balanceMinor !== null && account.paymentMethods[0]?.kind === 'balance' && charges.length > 0 && (
        <BalanceChart
          points={points}
          currency={account.currency}
          from={today}
          to={until}
          label={`Balance of ${account.label} over time. The same figures stand in the table of charges below.`}
        />
      )}
      {(account.balanceMinor === null || account.paymentMethods[0]?.kind !== 'balance') && charges.length > 0 && (
        <MonthBars
          months={funding.months.map(({ month, passingMinor, failingMinor }) => ({
            month,
            passingMinor,
            failingMinor,
          }))}
          currency={account.currency}
          label={`Charges of ${account.label} by month. The same figures stand in the table of months below.`}
        />
      )}
      <Actions>
        {account.balanceMinor !== null && <Button onPress={() => setMending('top up')}>Top up…</Button>}
        {card && <Button onPress={() => setMending('card')}>Replace {card.label}…</Button>}
        {lapsing.length > 0 && (
          <Button onPress={() => void renew(lapsing.map(({ nameId, years }) => ({ nameId, years })))}>
            Renew {lapsing.length < lapsingCount ? `the first ${lapsing.length}` : 'what would lapse'}…
          </Button>
        )}
      </Actions>
      {lapsingCount > 0 && (
        <p>
          <span className="caution">Lapse because their charge fails:</span>{' '}
          {lapsing.slice(0, 12).map(({ ascii, unicode, lapsesAt }, i) => (
            <span key={ascii}>
              {i > 0 && ', '}
              <Link href={namePage(ascii)} className="name">
                {unicode}
              </Link>{' '}
              {dayWords(lapsesAt, style)}
            </span>
          ))}
          {lapsingCount > 12 && ` and ${lapsingCount - 12} more`}.
        </p>
      )}
      <MonthsTable funding={funding} />
      <ChargesTable funding={funding} />
      <Dialog
        title={mending === 'card' ? `Replace ${card?.label}` : `Top up ${account.label}`}
        isOpen={mending !== null}
        onClose={() => setMending(null)}
      >
        {mending && (
          <MendForm
            funding={funding}
            until={until}
            card={mending === 'card' ? (card?.label ?? null) : null}
            onDone={() => setMending(null)}
          />
        )}
      </Dialog>
    </Section>
  );
}

function pointsOf({ account, charges }: FundingView, today: Instant, until: Instant): BalancePoint[] {
  const start = account.balanceMinor ?? 0;
  const points = charges.flatMap((charge): BalancePoint[] =>
    charge.balanceMinor === null
      ? []
      : [
          {
            at: charge.at,
            balanceMinor: charge.balanceMinor,
            fails: charge.outcome === 'fail',
            text: `${charge.unicode} ${charge.cost ? formatAmount(charge.cost) : ''}${charge.cause ? ' fails' : ''}`,
          },
        ],
  );
  const last = points.at(-1)?.balanceMinor ?? start;
  return [
    { at: today, balanceMinor: start, fails: false, text: 'today' },
    ...points,
    { at: until, balanceMinor: last, fails: false, text: 'end of the range' },
  ];
}
