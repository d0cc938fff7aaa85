'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import type { WhatIf } from '@/core/ledger';
import { amount } from '@/core/money';
import type { Instant } from '@/core/time';
import { BalanceChart, type BalancePoint } from '@/ui/chart/BalanceChart';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { causeWords, dayWords, namesWords } from '@/ui/text/words';
import { useRenew } from '../acts/renew/useRenew';
import { useLedger } from '../frame/LedgerProvider';
import type { FundingView } from '../frame/views';
import { useChangeFunds, WhoTells } from './changeFunds';

/** One account's coming charges: the balance over time, by month, and charge by charge, with what would mend a failure. */
export function AccountFundingPart({ funding, until }: { funding: FundingView; until: Instant }) {
  const { style, today } = useLedger();
  const { account, charges, chargeCount, months, lapsing, lapsingCount } = funding;
  const renew = useRenew();
  const [mending, setMending] = useState<'top up' | 'card' | null>(null);
  const money = (minor: number) => formatAmount(amount(minor, account.currency));
  const points = useMemo(() => pointsOf(funding, today, until), [funding, today, until]);
  const card = account.paymentMethods.find((method) => method.kind === 'card');
  return (
    <Section aria-label={`Funding of ${account.label}`}>
      <h2>{account.label}</h2>
      {account.balanceMinor !== null && charges.length > 0 && (
        <BalanceChart
          points={points}
          currency={account.currency}
          from={today}
          to={until}
          label={`Balance of ${account.label} over time. The same figures stand in the table of charges below.`}
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
              <Link href={`/ledger/${encodeURIComponent(ascii)}`} className="name">
                {unicode}
              </Link>{' '}
              {dayWords(lapsesAt, style)}
            </span>
          ))}
          {lapsingCount > 12 && ` and ${lapsingCount - 12} more`}.
        </p>
      )}
      {months.length > 0 && (
        <Wide>
          <Ruled aria-label={`Charges of ${account.label} by month`}>
            <thead>
              <tr>
                <th>Month</th>
                <th className="figure">Charges</th>
                <th className="figure">Will pass</th>
                <th className="figure">Fail</th>
                <th className="figure">Missing</th>
              </tr>
            </thead>
            <tbody>
              {months.map((month) => (
                <tr key={month.month}>
                  <td>{month.month}</td>
                  <td className="figure">{month.charges}</td>
                  <td className="figure">{money(month.passingMinor)}</td>
                  <td className="figure">
                    {month.failing > 0 ? <span className="caution">{month.failing}</span> : '–'}
                  </td>
                  <td className="figure">
                    {month.failing > 0 ? <span className="caution">{money(month.failingMinor)}</span> : '–'}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      )}
      {charges.length > 0 && (
        <Wide>
          <Ruled aria-label={`Charges of ${account.label}`}>
            <thead>
              <tr>
                <th>Day</th>
                <th>Name</th>
                <th className="figure">Charge</th>
                <th className="figure">Balance after</th>
                <th>Result</th>
              </tr>
            </thead>
            <tbody>
              {charges.slice(0, 60).map((charge) => (
                <tr key={`${charge.place} ${charge.at}`}>
                  <td>{dayWords(charge.at, style)}</td>
                  <td>
                    <Link href={`/ledger/${encodeURIComponent(charge.ascii)}`} className="name">
                      {charge.unicode}
                    </Link>
                  </td>
                  <td className="figure">{charge.cost ? formatAmount(charge.cost) : 'no price'}</td>
                  <td className="figure">{charge.balanceMinor === null ? '–' : money(charge.balanceMinor)}</td>
                  <td>
                    {charge.cause ? (
                      <span className="caution">fails: {causeWords(charge.cause)}</span>
                    ) : (
                      <>
                        {charge.assumed ? 'not known whether it passes' : 'passes'}
                        {charge.paymentMethod ? `, ${charge.paymentMethod}` : ''}
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      )}
      {chargeCount > 60 && <p className="soft">The first 60 of {chargeCount} charges.</p>}
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

/** More money or a new card: what it would change is shown before anything is confirmed. */
function MendForm({
  funding,
  until,
  card,
  onDone,
}: {
  funding: FundingView;
  until: Instant;
  card: string | null;
  onDone: () => void;
}) {
  const { worker, style } = useLedger();
  const { account } = funding;
  const least = funding.leastTopUp && amount(funding.leastTopUp.minor, account.currency);
  const [sum, setSum] = useState(least);
  const [month, setMonth] = useState('');
  const [then, setThen] = useState<FundingView | null>(null);
  const { busy, change } = useChangeFunds(onDone);
  const topUp = card === null ? (sum?.minor ?? null) : 0;
  const monthReads = /^\d{4}-(0[1-9]|1[0-2])$/.test(month.trim());
  const ready = card === null ? topUp !== null && topUp > 0 : monthReads;

  useEffect(() => {
    if (!ready || !worker) {
      setThen(null);
      return;
    }
    const thought: WhatIf = {
      accountId: account.id,
      topUpMinor: topUp ?? 0,
      card: card === null ? null : { label: card, endsMonth: month.trim() },
    };
    let stale = false;
    void worker.whatIf(thought, until).then((seen) => !stale && setThen(seen));
    return () => {
      stale = true;
    };
  }, [ready, worker, account.id, topUp, card, month, until]);

  const confirm = () =>
    change({
      accountId: account.id,
      ...(card === null ? { topUpMinor: topUp } : { card, endsMonth: month.trim() }),
    });

  return (
    <>
      <Fields>
        {card === null ? (
          <AmountField
            label={`Amount, ${account.currency}`}
            currency={account.currency}
            amount={least}
            onChange={(_, read) => setSum(read)}
          />
        ) : (
          <Field
            label="The new card ends"
            value={month}
            onChange={setMonth}
            placeholder="2030-05"
            hint="its last month"
          />
        )}
      </Fields>
      <p aria-live="polite">
        {then === null
          ? 'Write it to see what it would change.'
          : then.firstFailure
            ? `Then the first charge fails ${dayWords(then.firstFailure.at, style)} (${causeWords(then.firstFailure.cause)})${funding.firstFailure ? ` instead of ${dayWords(funding.firstFailure.at, style)}` : ''}; ${namesWords(then.lapsingCount)} lapse instead of ${funding.lapsingCount}.`
            : `Then every charge until ${dayWords(until, style)} passes${funding.lapsingCount > 0 ? `, and ${namesWords(funding.lapsingCount)} do not lapse` : ''}.`}
      </p>
      <WhoTells account={account} />
      <Actions>
        <Button data-kind="primary" isDisabled={!ready || busy} onPress={() => void confirm()}>
          {card === null
            ? account.linked
              ? `Top up ${ready ? formatAmount(amount(topUp ?? 0, account.currency)) : ''}`
              : 'It is paid in: write it down'
            : account.linked
              ? 'Replace the card'
              : 'It is replaced: write it down'}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Actions>
    </>
  );
}
