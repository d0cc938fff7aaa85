'use client';
import { useState } from 'react';
import type { Compared, Fan, Forecast, NamedStrategy, Strategy } from '@/core/prospects';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { numberText, typedNumber } from '@/ui/text/figures';
import { roughGain, roughly, shareWords } from '@/ui/text/prospectWords';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { STANDING, useProspects } from './ProspectsContext';

/** What can be compared with how it stands. */
const KINDS = ['keep all', 'drop what is not worth it', 'budget', 'lower prices'] as const;
type Kind = (typeof KINDS)[number];

const NAMES: Readonly<Record<Kind, string>> = {
  'keep all': 'Keep all',
  'drop what is not worth it': 'Drop what is not worth it',
  budget: 'A yearly budget',
  'lower prices': 'Lower prices',
};

const ABOUT: Readonly<Record<Kind, string>> = {
  'keep all': 'every name renewed as long as it is not sold, money never short',
  'drop what is not worth it': 'a name is given up once keeping it costs more than it may bring',
  budget: 'spent each year on what is worth most for its cost',
  'lower prices': 'all asking prices fall',
};

const FIRST_SHARE = 0.2;

/** What the strategies are given: a yearly budget, minor units, and by what share prices fall. */
interface Given {
  readonly budget: number;
  readonly share: number;
}

const strategyOf = (kind: Kind, { budget, share }: Given): NamedStrategy => {
  const strategy: Strategy =
    kind === 'budget' ? { kind, yearlyMinor: budget } : kind === 'lower prices' ? { kind, share } : { kind };
  return { label: kind, strategy };
};

/** What came of a strategy, and what it is against how it stands. */
type Found = { readonly fan: Fan; readonly compared: Compared | null } | null;

function foundIn(forecast: Forecast, label: string): Found {
  const i = forecast.fans.findIndex((fan) => fan.label === label);
  const fan = forecast.fans[i];
  return fan ? { fan, compared: forecast.compared[i - 1] ?? null } : null;
}

/** Strategies side by side on the same random numbers: what each leaves, and how sure its difference from how it stands is. */
export function StrategiesPart({ forecast }: { forecast: Forecast }) {
  const { thought, think } = useProspects();
  const { currency } = forecast;
  return (
    <Section aria-label="Strategies side by side">
      <h2>Strategies side by side</h2>
      <Wide least={680}>
        <Ruled data-middle>
          <thead>
            <tr>
              <th>Strategy</th>
              <th className="figure">Left over</th>
              <th className="figure">Worst tenth</th>
              <th className="figure">Runs out</th>
              <th className="figure">Against how it stands</th>
              <th className="figure">Better on</th>
            </tr>
          </thead>
          <tbody>
            <Line
              name="As it stands"
              about="nothing is done"
              found={foundIn(forecast, STANDING.label)}
              currency={currency}
            />
            <ComparedLines forecast={forecast} />
            {thought && (
              <Line
                name="What you think of"
                about={
                  <>
                    {thoughtWords(thought.dropped.length, thought.asked.length)}{' '}
                    <Button data-kind="plain" onPress={() => think(null)}>
                      Think no more of it
                    </Button>
                  </>
                }
                found={foundIn(forecast, 'what you think of')}
                currency={currency}
              />
            )}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

/** The strategies that can be compared: each is put beside the others by its box. */
function ComparedLines({ forecast }: { forecast: Forecast }) {
  const { compared, compare } = useProspects();
  const [given, setGiven] = useState<Given>(() => ({ budget: yearlyCost(forecast), share: FIRST_SHARE }));
  const { currency } = forecast;
  const isCompared = (kind: Kind) => compared.some(({ label }) => label === kind);
  const toggle = (kind: Kind, isOn: boolean) =>
    compare(KINDS.filter((one) => (one === kind ? isOn : isCompared(one))).map((one) => strategyOf(one, given)));
  const give = (more: Partial<Given>) => {
    const next = { ...given, ...more };
    setGiven(next);
    compare(compared.map(({ label }) => strategyOf(label as Kind, next)));
  };
  const fieldOf = (kind: Kind) =>
    kind === 'budget' ? (
      <AmountField
        label={`Budget a year, ${currency}`}
        currency={currency}
        amount={{ minor: given.budget, currency }}
        onChange={(_, read) => read && give({ budget: read.minor })}
      />
    ) : kind === 'lower prices' ? (
      <PercentField share={given.share} onChange={(share) => give({ share })} />
    ) : null;
  return KINDS.map((kind) => (
    <Line
      key={kind}
      name={
        <Check isSelected={isCompared(kind)} onChange={(on) => toggle(kind, on)}>
          {NAMES[kind]}
        </Check>
      }
      about={ABOUT[kind]}
      field={isCompared(kind) ? fieldOf(kind) : null}
      found={isCompared(kind) ? foundIn(forecast, kind) : null}
      currency={currency}
    />
  ));
}

function thoughtWords(dropped: number, asked: number): string {
  return [dropped > 0 && `${dropped} dropped`, asked > 0 && `${asked} at another price`].filter(Boolean).join(', ');
}

/** What a year costs, for a first budget: four fifths of the first twelve months. */
const yearlyCost = ({ costs }: Forecast) =>
  Math.round((0.8 * costs.slice(0, 12).reduce((sum, cost) => sum + cost, 0)) / 100) * 100;

function PercentField({ share, onChange }: { share: number; onChange: (share: number) => void }) {
  const [typed, setTyped] = useState(numberText(share * 100));
  return (
    <Field
      label="Lower by, percent"
      value={typed}
      inputMode="decimal"
      onChange={(text) => {
        setTyped(text);
        const read = typedNumber(text);
        if (typeof read === 'number' && read > 0 && read < 100) onChange(read / 100);
      }}
    />
  );
}

function Line({
  name,
  about,
  field,
  found,
  currency,
}: {
  name: React.ReactNode;
  about: React.ReactNode;
  field?: React.ReactNode;
  found: Found;
  currency: string;
}) {
  const money = (minor: number) => roughGain(minor, currency);
  const plain = (minor: number) => roughly(minor, currency);
  const fan = found?.fan;
  const difference = found?.compared ?? null;
  return (
    <tr>
      <td>
        {name}
        <div className="soft">{about}</div>
        {field}
      </td>
      <td className="figure">
        {fan && (
          <>
            <b>{money(fan.profit.mean)}</b>
            <div className="soft">± {plain(fan.profit.spread)}</div>
          </>
        )}
      </td>
      <td className="figure">{fan && money(fan.profit.worstTenth)}</td>
      <td className="figure">{fan && shareWords(fan.short.at(-1) ?? 0)}</td>
      <td className="figure">
        {difference && (
          <>
            <b>{money(difference.difference)}</b>
            <div className="soft">{sureWords(difference, plain)}</div>
          </>
        )}
      </td>
      <td className="figure">{difference && `${shareWords(difference.better)} of paths`}</td>
    </tr>
  );
}

/** How sure a mean difference is: twice its standard error, or that it cannot be told from nothing. */
function sureWords({ difference, standardError }: Compared, money: (minor: number) => string): string {
  if (standardError === 0) return difference === 0 ? 'no difference' : 'certain';
  return Math.abs(difference) < 2 * standardError
    ? `within chance (± ${money(2 * standardError)})`
    : `sure to ± ${money(2 * standardError)}`;
}
