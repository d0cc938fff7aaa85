'use client';
import { useEffect, useState } from 'react';
import { type Amount, amount, readPercent } from '@/core/money';
import { breakEvenRise, savedByLongerTerm } from '@/core/pricing';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount, numberText } from '@/ui/text/figures';
import { Fields, Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import type { TermsCompared } from '@/usecases/orders/compareTerms';
import { compareTermsAction } from '../actions';

const TERMS = Array.from({ length: 10 }, (_, i) => ({
  value: String(i + 1),
  text: i === 0 ? 'one year' : `${i + 1} years`,
}));

/** A share that was written in percent, or `null`. */
function share(text: string): number | null {
  const percent = readPercent(text, -99.99, 1000);
  return isRefusal(percent) ? null : percent / 100;
}

const percent = (value: number) => `${(value * 100).toFixed(1)} %`;

/** Several years today against renewing yearly: which is cheaper, by how much, and from which rise on it is not. */
export function LongerTerm({ id, onTake }: { id: string; onTake: (years: number) => void }) {
  const [years, setYears] = useState('5');
  const [typedRise, setRise] = useState<string | null>(null);
  const [discount, setDiscount] = useState('3');
  const [compared, setCompared] = useState<TermsCompared | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    let stale = false;
    void compareTermsAction(id, Number(years)).then((answer) => {
      if (stale) return;
      setProblem(isRefusal(answer) ? answer.message : null);
      setCompared(isRefusal(answer) ? null : answer);
    });
    return () => {
      stale = true;
    };
  }, [id, years]);

  // The rise is the person's; what the list itself has done stands there until something is written.
  const past = compared?.pastRise ?? null;
  const rise = typedRise ?? (past === null ? '0' : numberText(Math.round(past * 1000) / 10));
  const assumed = { rise: share(rise), discount: share(discount) };
  return (
    <Section aria-label="Longer now or yearly">
      <Fields>
        <Choice label="Buy now" value={years} onChange={setYears} options={TERMS} />
        <Field
          label="Prices rise by, percent a year"
          value={rise}
          onChange={setRise}
          inputMode="decimal"
          hint={
            typedRise !== null
              ? undefined
              : past === null
                ? 'no older price is known: write what you expect'
                : 'as the price list has risen so far'
          }
          problem={assumed.rise === null ? 'Write a percentage, like 4.' : null}
        />
        <Field
          label="Discount rate, percent a year"
          value={discount}
          onChange={setDiscount}
          inputMode="decimal"
          problem={assumed.discount === null ? 'Write a percentage, like 3.' : null}
        />
      </Fields>
      {problem && <p className="caution">{problem}</p>}
      {compared?.names === 0 && <p>None of these names can be bought for {years} years today.</p>}
      {compared?.sums.map((sum) => (
        <p key={sum.now.currency}>
          <Verdict years={compared.years} now={sum.now} yearly={sum.yearly} later={sum.later} {...assumed} />
        </p>
      ))}
      {compared && compared.names > 0 && (
        <Actions>
          <Button onPress={() => onTake(compared.years)}>
            Take {compared.years} years for {namesWords(compared.names)}
          </Button>
          {compared.leftOut > 0 && (
            <span className="soft">
              {namesWords(compared.leftOut)} left out: the term is not possible, or no price is known.
            </span>
          )}
        </Actions>
      )}
    </Section>
  );
}

function Verdict({
  years,
  now,
  yearly,
  later,
  rise,
  discount,
}: {
  years: number;
  now: Amount;
  yearly: Amount;
  later: Amount;
  rise: number | null;
  discount: number | null;
}) {
  if (rise === null || discount === null) return null;
  const term = { nowMinor: now.minor, firstMinor: yearly.minor, yearMinor: later.minor, years, discount };
  const saved = Math.round(savedByLongerTerm({ ...term, rise }));
  const even = breakEvenRise(term);
  const difference = formatAmount(amount(Math.abs(saved), now.currency));
  return (
    <>
      {years} years now cost {formatAmount(now)}; yearly it begins with {formatAmount(yearly)}
      {later.minor === yearly.minor ? '' : `, and goes on with ${formatAmount(later)}`}.{' '}
      <strong>
        {saved === 0
          ? 'Both come to the same'
          : saved > 0
            ? `${years} years now are cheaper by ${difference}`
            : `Yearly is cheaper by ${difference}`}
      </strong>
      , in money of today.{' '}
      {even === null
        ? 'No yearly rise makes both the same.'
        : `Both come to the same at a rise of ${percent(even)} a year.`}
    </>
  );
}
