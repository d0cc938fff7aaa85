'use client';
import { useMemo, useState } from 'react';
import { FAN_LINES, type Fan, monthNames, monthScale } from '@/core/prospects';
import { formatMonth, type Month } from '@/core/time';
import { FanChart } from '@/ui/chart/FanChart';
import { HitRates } from '@/ui/chart/HitRates';
import { formatAmount } from '@/ui/text/figures';
import { roughly, shareWords } from '@/ui/text/prospectWords';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { LookingBack } from '@/usecases/prospects/forecasts';
import { useLedger } from '../../../frame/LedgerProvider';
import { useTitle } from '../../../frame/PageTitle';

const NO_OTHERS: readonly Fan[] = [];

/** A kept forecast against what has come: the balance in its fan, and of all that was said to be so likely, how many came true. */
export function LookingBackScreen({ back }: { back: LookingBack }) {
  const { style } = useLedger();
  const { forecast, actual } = back;
  const { fan, currency, months: ahead, madeAt } = forecast;
  const months = useMemo(() => monthNames(monthScale(madeAt)).slice(0, ahead), [madeAt, ahead]);
  const [month, setMonth] = useState<number | null>(null);
  useTitle('Prospects', forecast.label);
  return (
    <Page>
      <Head>
        <Answer>{backAnswer(back)}</Answer>
        <p>
          “{forecast.label}”, kept on {dayWords(madeAt, style)} with seed {forecast.seed} and{' '}
          {forecast.paths.toLocaleString('en')} paths.
        </p>
      </Head>
      <Section aria-label="The balance in its fan">
        <h2>The balance in its fan</h2>
        <FanChart
          months={months}
          fan={fan}
          others={NO_OTHERS}
          costs={forecast.costs}
          actual={actual}
          floorMinor={forecast.assumptions.floorMinor ?? 0}
          currency={currency}
          chosen={month}
          onChoose={setMonth}
          label={`What was forecast, and what came in ${countOf(actual.length, 'month', 'months')}`}
        />
        <p className="soft">
          What came is what was booked since for the names of then, from{' '}
          {formatAmount({ minor: forecast.openingMinor, currency }, true)} on. Names that were bought since are not
          counted.
        </p>
        <BalanceTable back={back} months={months} />
      </Section>
      <Section aria-label="Said and seen">
        <h2>Of all that was said to be so likely, how many came true</h2>
        <div style={{ display: 'flex', gap: 32, flexWrap: 'wrap' }}>
          <HitRates rates={back.hitRates} label="What was said against what was seen; the figures stand beside it" />
          <RatesTable back={back} />
        </div>
      </Section>
    </Page>
  );
}

function backAnswer({ inAll, elapsedYears, actual, forecast }: LookingBack): string {
  if (elapsedYears < 1 / 12) return 'It is too early to look back: less than a month has gone by.';
  const said = inAll.said < 10 ? inAll.said.toFixed(1) : String(Math.round(inAll.said));
  const last = actual.findLastIndex((balance) => balance !== null);
  const balance = actual[last] ?? null;
  const where =
    balance === null
      ? ''
      : ` The money stands ${placeWords(
          balance,
          forecast.fan.lines.map((line) => line[last] ?? 0),
        )}.`;
  return `${said} names were said to sell by now; ${inAll.seen === 0 ? 'none was' : inAll.seen === 1 ? 'one was' : `${inAll.seen} were`} sold.${where}`;
}

/** Between which lines of the fan a balance lies. */
function placeWords(balance: number, lines: readonly number[]): string {
  const above = lines.filter((line) => balance >= line).length;
  if (above === 0) return 'below what 19 of 20 paths came to';
  if (above === lines.length) return 'above what 19 of 20 paths came to';
  return `between the lines of ${FAN_LINES[above - 1]} and ${FAN_LINES[above]} percent`;
}

const LAST_MONTHS = 12;

function BalanceTable({ back: { actual, forecast }, months }: { back: LookingBack; months: readonly Month[] }) {
  if (actual.length === 0) return null;
  const money = (minor: number | null | undefined) =>
    minor === null || minor === undefined
      ? 'no rate'
      : formatAmount({ minor: Math.round(minor), currency: forecast.currency }, true);
  const from = Math.max(0, actual.length - LAST_MONTHS);
  return (
    <Wide>
      <Ruled aria-label="What came, month by month">
        <thead>
          <tr>
            <th>Month</th>
            <th className="figure">What came</th>
            {FAN_LINES.map((percent) => (
              <th key={percent} className="figure">
                {percent} %
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {actual.slice(from).map((balance, i) => (
            <tr key={months[from + i]}>
              <td>{formatMonth(months[from + i] as Month)}</td>
              <td className="figure">
                <b>{money(balance)}</b>
              </td>
              {forecast.fan.lines.map((line, which) => (
                <td key={FAN_LINES[which]} className="figure">
                  {roughly(line[from + i] ?? 0, forecast.currency)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}

function RatesTable({ back: { hitRates } }: { back: LookingBack }) {
  if (hitRates.length === 0) return <p className="soft">No name was on offer then.</p>;
  return (
    <div style={{ flex: '1 1 380px' }}>
      <Ruled aria-label="Said and seen">
        <thead>
          <tr>
            <th>Said to be</th>
            <th className="figure">Names</th>
            <th className="figure">On average</th>
            <th className="figure">Came true</th>
            <th className="figure">True share</th>
          </tr>
        </thead>
        <tbody>
          {hitRates.map(({ from, to, count, said, seen, low, high }) => (
            <tr key={from}>
              <td>
                {shareWords(from)} to {shareWords(to)}
              </td>
              <td className="figure">{namesWords(count)}</td>
              <td className="figure">{shareWords(said)}</td>
              <td className="figure">
                <b>{shareWords(seen)}</b>
              </td>
              <td className="figure soft">
                {shareWords(low)} to {shareWords(high)}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </div>
  );
}
