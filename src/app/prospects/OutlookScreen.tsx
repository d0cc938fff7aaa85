'use client';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { type Fan, type Forecast, GREATEST_SEED, nextSeed, readSeed } from '@/core/prospects';
import { FanChart } from '@/ui/chart/FanChart';
import { MoverBars } from '@/ui/chart/MoverBars';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import {
  INPUT_WORDS,
  inputWords,
  outlookAnswer,
  roughGain,
  roughly,
  shareWords,
  yearsInWords,
} from '@/ui/text/prospectWords';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Failed, Loading, Progress } from '@/ui/text/States';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { AssumptionsPart } from './AssumptionsPart';
import { GroupsPart } from './GroupsPart';
import { KeepPart } from './KeepPart';
import { LackingPart } from './LackingPart';
import { MonthPart } from './MonthPart';
import { useProspects } from './ProspectsContext';
import { StrategiesPart } from './StrategiesPart';
import { useForecast } from './useForecast';

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 286px;
  gap: 20px 40px;
  align-items: start;
  @media (max-width: 1000px) { grid-template-columns: minmax(0, 1fr); }
`;

const Column = styled.div`
  display: flex;
  flex-direction: column;
  gap: 22px;
  min-width: 0;
`;

const Asked = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
  & input { width: 12ch; }
`;

/** Will sales carry the renewals? The fan of balances, what stands behind it, and the assumptions beside it. */
export function OutlookScreen() {
  const prospects = useProspects();
  const { meta, problem, reload } = useLedger();
  const { forecast, progress, problem: failed, cancel } = useForecast(prospects);
  useTitle('Prospects', 'will sales carry the renewals?');
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (meta === null || (forecast === null && !failed)) return <Loading text="Playing the coming years" />;
  if (forecast === null) return <Failed text="The outlook could not be worked out." onRetry={() => void reload()} />;
  return (
    <Page style={{ maxWidth: 1240 }}>
      <Head>
        <Answer>{outlookAnswer(forecast)}</Answer>
        <p>
          What these assumptions lead to, not a promise. {offersWords(forecast)} As it stands: nothing is done, and
          every charge passes or fails as the ledger has it.
        </p>
      </Head>
      <Halves>
        <Column>
          <FanPart forecast={forecast} />
          {progress && (
            <Progress text="Paths played" done={progress.done} total={progress.paths}>
              <span>
                <Button data-kind="plain" onPress={cancel}>
                  Stop here
                </Button>
              </span>
            </Progress>
          )}
          <LackingPart forecast={forecast} />
          {forecast.fans.length > 0 && <StrategiesPart forecast={forecast} />}
          {forecast.movers.length > 0 && <MoversPart forecast={forecast} />}
          <GroupsPart forecast={forecast} />
          <KeepPart forecast={forecast} />
        </Column>
        <AssumptionsPart forecast={forecast} />
      </Halves>
    </Page>
  );
}

function offersWords({ offered, beingSold }: Forecast): string {
  const names = offered === 1 ? 'One name is on offer' : `${offered.toLocaleString('en')} names are on offer`;
  const sold =
    beingSold === 0
      ? ''
      : ` ${beingSold === 1 ? 'One is being sold' : `${beingSold} are being sold`} already: what that brings is not counted in.`;
  return `${names}: those that an asking price is set for.${sold}`;
}

/** The fan with what was asked of it, and what is charged in the month that is pointed at. */
function FanPart({ forecast }: { forecast: Forecast }) {
  const { years, lookAhead, seed, drawAgain, assumptions } = useProspects();
  const [month, setMonth] = useState<number | null>(null);
  const [fan] = forecast.fans;
  const others = useMemo(() => forecast.fans.slice(1), [forecast.fans]);
  const [typed, setTyped] = useState<string | null>(null);
  const [isUnread, setUnread] = useState(false);
  const draw = (by: number | null) => {
    setUnread(by === null);
    if (by === null) return;
    setTyped(null);
    drawAgain(by);
  };
  return (
    <Section aria-label="Balance by month">
      <Asked>
        <Choice
          label="Ahead"
          value={String(years)}
          onChange={(value) => lookAhead(Number(value))}
          options={Array.from({ length: 10 }, (_, i) => ({ value: String(i + 1), text: yearsInWords(i + 1) }))}
        />
        <Field
          label="Seed"
          value={typed ?? String(seed)}
          onChange={setTyped}
          onBlur={() => typed !== null && draw(readSeed(typed))}
          problem={isUnread ? `Write a whole number up to ${GREATEST_SEED.toLocaleString('en')}.` : null}
          inputMode="numeric"
        />
        <Button onPress={() => draw(nextSeed(seed))}>Draw again</Button>
        <span className="soft">{forecast.paths.toLocaleString('en')} paths; the same seed draws the same picture</span>
      </Asked>
      {fan && (
        <>
          <FanChart
            months={forecast.months}
            fan={fan}
            others={others}
            costs={forecast.costs}
            shares={sharesOf(fan)}
            floorMinor={assumptions.floorMinor}
            currency={forecast.currency}
            chosen={month}
            onChoose={setMonth}
            label={`Balance at the end of each month over ${yearsInWords(years)}: ${outlookAnswer(forecast)}`}
          />
          <MonthPart forecast={forecast} month={month} onChoose={setMonth} />
          <FiguresTable forecast={forecast} fan={fan} />
        </>
      )}
    </Section>
  );
}

const sharesOf = ({ unsold, short }: Fan) => [
  { text: 'nothing sold yet', shares: unsold, isGrave: false },
  { text: 'money has run out', shares: short, isGrave: true },
];

/** What a fan comes to, in figures. */
function FiguresTable({ forecast: { currency, openingMinor, months }, fan }: { forecast: Forecast; fan: Fan }) {
  const money = (minor: number) => roughly(minor, currency);
  const { profit } = fan;
  const rows: readonly (readonly [string, string, string])[] = [
    ['At hand today', money(openingMinor), 'balances of the accounts, and the money beside them'],
    ['A sale within a year', shareWords(fan.saleInYear), 'of at least one name'],
    ...(fan.saleInFive === null
      ? []
      : [['A sale within five years', shareWords(fan.saleInFive), 'of at least one name'] as const]),
    ['Names sold', fan.namesSold.toFixed(1), `on average, over ${yearsInWords(Math.round(months.length / 12))}`],
    [
      'Left over',
      roughGain(profit.mean, currency),
      `on average, give or take ${money(profit.spread)}; on the worst tenth of paths ${roughGain(profit.worstTenth, currency)}`,
    ],
    [
      'The money runs out',
      shareWords(fan.short.at(-1) ?? 0),
      'of the paths, at the end of some month; a path goes on below it',
    ],
  ];
  return (
    <Ruled aria-label="What the outlook comes to">
      <tbody>
        {rows.map(([what, figure, about]) => (
          <tr key={what}>
            <th scope="row">{what}</th>
            <td className="figure">
              <b>{figure}</b>
            </td>
            <td className="soft">{about}</td>
          </tr>
        ))}
      </tbody>
    </Ruled>
  );
}

/** What moves the result most. */
function MoversPart({ forecast: { movers, currency, fans, months } }: { forecast: Forecast }) {
  const middle = fans[0]?.profit.mean ?? 0;
  const words = (value: string, minor: number) => `${value}: ${roughGain(minor, currency)}`;
  return (
    <Section aria-label="What moves it most">
      <h2>What moves it most</h2>
      <p className="soft">
        What is left over in {yearsInWords(Math.round(months.length / 12))} between the ends of what each figure may be,
        all others as they are.
      </p>
      <MoverBars
        label="What moves what is left over, the most first"
        middle={middle}
        bars={movers.map(({ input, low, high, profitLow, profitHigh }) => ({
          key: input,
          text: INPUT_WORDS[input],
          low: { minor: profitLow, words: words(inputWords(input, low), profitLow) },
          high: { minor: profitHigh, words: words(inputWords(input, high), profitHigh) },
        }))}
      />
    </Section>
  );
}
