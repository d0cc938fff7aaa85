'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { ASSUMPTION_LIMITS, GROUPINGS, type Grouping } from '@/core/odds';
import type { Forecast, Input } from '@/core/prospects';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { MovableFigure } from '@/ui/controls/MovableFigure';
import { report } from '@/ui/overlay/Toasts';
import { numberText, typedNumber } from '@/ui/text/figures';
import { ORIGIN_WORDS, seenWords } from '@/ui/text/prospectWords';
import type { AllAssumptions } from '@/usecases/prospects/assumptions';
import { useLedger } from '../frame/LedgerProvider';
import { dropAssumptionsAction, saveAssumptionsAction, takeAssumptionsAction } from './actions';
import { useProspects } from './ProspectsContext';

const Side = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
  & > h2 { padding-block: 5px; }
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

const percent = {
  write: (share: number) => `${numberText(Math.round(share * 1e4) / 100)} %`,
  read: (text: string) => {
    const read = typedNumber(text.replace('%', '').trim());
    return typeof read === 'number' ? read / 100 : null;
  },
};
const plain = {
  write: (value: number) => numberText(Math.round(value * 100) / 100),
  read: (text: string) => {
    const read = typedNumber(text.trim());
    return typeof read === 'number' ? read : null;
  },
};

const GROUPING_WORDS: Readonly<Record<Grouping, string>> = {
  ending: 'by ending',
  tag: 'by tag',
  asking: 'by asking price',
  view: 'by a saved view',
};

/** Every assumption with where it comes from and where it is believed to lie: moved by hand or typed, kept in named sets. */
export function AssumptionsPart({ forecast }: { forecast: Forecast | null }) {
  return (
    <Side aria-label="Assumptions">
      <h2>Assumptions</h2>
      <SetsPart />
      <ChanceFigures forecast={forecast} />
      <PriceFigures forecast={forecast} />
      <MoneyFigures />
    </Side>
  );
}

function ChanceFigures({ forecast }: { forecast: Forecast | null }) {
  const { assumptions, assume, views } = useProspects();
  const seen = (forecast?.groups ?? []).reduce(
    (sum, group) => ({ sales: sum.sales + group.seen.sales, years: sum.years + group.seen.nameYears }),
    { sales: 0, years: 0 },
  );
  return (
    <>
      <MovableFigure
        label="Chance of a sale a year"
        value={assumptions.chance}
        limits={ASSUMPTION_LIMITS.chance}
        least={0.001}
        most={0.3}
        grows
        likely={likelyChance(forecast)}
        {...percent}
        about={
          assumptions.countOwnSales && seen.sales > 0
            ? `Before own sales. They were ${seenWords(seen.sales, seen.years)}, and are counted in.`
            : `An assumption: there ${seen.sales === 0 ? 'are no own sales yet' : `were ${seenWords(seen.sales, seen.years)}, not counted`}.`
        }
        onChange={(chance) => assume({ chance: rounded(chance) })}
      />
      <MovableFigure
        label="Held as firmly as"
        value={assumptions.nameYears}
        limits={ASSUMPTION_LIMITS.nameYears}
        least={10}
        most={5000}
        grows
        {...plain}
        write={(years) => `${Math.round(years).toLocaleString('en')}`}
        about="name-years: the more, the less own sales change it."
        onChange={(nameYears) => assume({ nameYears: Math.max(1, Math.round(nameYears)) })}
      />
      <Check isSelected={assumptions.countOwnSales} onChange={(countOwnSales) => assume({ countOwnSales })}>
        Count own sales in
      </Check>
      <Choice
        label="Names share their chance"
        value={assumptions.grouping}
        onChange={(grouping) =>
          assume({
            grouping,
            viewId: grouping === 'view' ? (assumptions.viewId ?? views[0]?.id ?? null) : assumptions.viewId,
          })
        }
        options={GROUPINGS.filter((one) => one !== 'view' || views.length > 0).map((one) => ({
          value: one,
          text: GROUPING_WORDS[one],
        }))}
      />
      {assumptions.grouping === 'view' && (
        <Choice
          label="The view"
          value={assumptions.viewId === null ? null : String(assumptions.viewId)}
          onChange={(id) => assume({ viewId: Number(id) })}
          options={views.map(({ id, label }) => ({ value: String(id), text: label }))}
        />
      )}
    </>
  );
}

function PriceFigures({ forecast }: { forecast: Forecast | null }) {
  const { assumptions, assume } = useProspects();
  const share = forecast?.share ?? null;
  return (
    <>
      <MovableFigure
        label="Paid of the asking price"
        value={assumptions.medianShare ?? share?.median ?? 0.6}
        limits={ASSUMPTION_LIMITS.medianShare}
        least={0.1}
        most={1.5}
        likely={spreadOf(forecast, 'share')}
        {...percent}
        about={`Half of all sales pay less${forecast ? `; ${ORIGIN_WORDS[forecast.shareFrom]}${forecast.pricedSales > 0 ? ` (${forecast.pricedSales} own)` : ''}` : ''}. Never more than is asked.`}
        onChange={(medianShare) => assume({ medianShare: rounded(medianShare) })}
      />
      <MovableFigure
        label="Spread of that"
        value={assumptions.shareSigma ?? share?.sigma ?? 0.5}
        limits={ASSUMPTION_LIMITS.shareSigma}
        least={0}
        most={1.5}
        {...plain}
        about="of its logarithm: 0.5 puts two of three between six tenths and 1.6 times."
        onChange={(shareSigma) => assume({ shareSigma: rounded(shareSigma) })}
      />
      <MovableFigure
        label="Commission"
        value={assumptions.commission}
        limits={ASSUMPTION_LIMITS.commission}
        least={0}
        most={0.4}
        likely={spreadOf(forecast, 'commission')}
        {...percent}
        about="Where a name is listed nowhere; else its marketplace’s own fees."
        onChange={(commission) => assume({ commission: rounded(commission) })}
      />
      <SignalInputs />
      <MovableFigure
        label="Chance answers to price"
        value={assumptions.elasticity}
        limits={ASSUMPTION_LIMITS.elasticity}
        least={0}
        most={4}
        {...plain}
        about="At 0 a lower price sells no more often. A tenth less at 1 sells a ninth more often."
        onChange={(elasticity) => assume({ elasticity: Math.round(elasticity * 10) / 10 })}
      />
      <MovableFigure
        label="Money now over later"
        value={assumptions.interest}
        limits={ASSUMPTION_LIMITS.interest}
        least={0}
        most={0.4}
        {...percent}
        about="a year: by it later years count for less when a name is judged."
        onChange={(interest) => assume({ interest: rounded(interest) })}
      />
    </>
  );
}

/** By how much more often names sell that somebody wishes for, or looks at. */
function SignalInputs() {
  const { assumptions, assume } = useProspects();
  return (
    <>
      <FactorInput
        of="offerFactor"
        label="Names with offers sell"
        about="times as often, if somebody offered or bid within a year; nothing yet says so."
      />
      <FactorInput
        of="visitFactor"
        label="Names looked at sell"
        about="times as often, if their window was opened often enough in 90 days; nothing yet says so."
      />
      <MovableFigure
        label="Often enough: visits"
        value={assumptions.visitsFrom}
        limits={ASSUMPTION_LIMITS.visitsFrom}
        least={1}
        most={300}
        grows
        {...plain}
        about="in 90 days, robots left out. Only windows that this program shows are counted."
        onChange={(visitsFrom) => assume({ visitsFrom: Math.round(visitsFrom) })}
      />
    </>
  );
}

/** So many times as likely, to a tenth. */
function FactorInput({ of, label, about }: { of: 'offerFactor' | 'visitFactor'; label: string; about: string }) {
  const { assumptions, assume } = useProspects();
  const tenth = (factor: number) => Math.round(factor * 10) / 10;
  return (
    <MovableFigure
      label={label}
      value={assumptions[of]}
      limits={ASSUMPTION_LIMITS[of]}
      least={0.2}
      most={10}
      grows
      {...plain}
      write={(factor) => `× ${numberText(tenth(factor))}`}
      read={(text) => plain.read(text.replace('×', ''))}
      about={about}
      onChange={(factor) => assume({ [of]: tenth(factor) })}
    />
  );
}

/** The spread by which an input is weighed among what moves the result most. */
function spreadOf(forecast: Forecast | null, input: Input): readonly [number, number] | null {
  const mover = forecast?.movers.find((one) => one.input === input);
  return mover ? [mover.low, mover.high] : null;
}

const rounded = (value: number) => Math.round(value * 1e4) / 1e4;

/** Where the chance lies over all groups, by how many names each has. */
function likelyChance(forecast: Forecast | null): readonly [number, number] | null {
  const names = forecast?.groups.reduce((sum, group) => sum + group.names, 0) ?? 0;
  if (!forecast || names === 0) return null;
  const mean = (of: 'low' | 'high') =>
    forecast.groups.reduce((sum, group) => sum + group.names * group.spread[of], 0) / names;
  return [mean('low'), mean('high')];
}

function MoneyFigures() {
  const { assumptions, assume, takenUp } = useProspects();
  const { homeCurrency: currency } = useLedger();
  const money = (key: 'cashMinor' | 'floorMinor', label: string, hint: string) => (
    <AmountField
      key={takenUp}
      negative
      label={`${label}, ${currency}`}
      currency={currency}
      amount={{ minor: assumptions[key], currency }}
      hint={hint}
      onChange={(text, read) => {
        if (read) assume({ [key]: read.minor });
        else if (text.trim() === '') assume({ [key]: 0 });
      }}
    />
  );
  return (
    <>
      {money('cashMinor', 'Money beside the balances', 'what could be paid in; 0 counts the balances alone')}
      {money('floorMinor', 'Never below', 'below this the money counts as run out')}
    </>
  );
}

/** Sets of assumptions under a name, and the one that the office judges names by. */
function SetsPart() {
  const { assumptions, known, take, takeUp } = useProspects();
  const { reload } = useLedger();
  const [label, setLabel] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const isInUse = same(assumptions, known.inUse);
  const done = async (
    work: Promise<AllAssumptions | { readonly kind: 'refusal'; readonly message: string }>,
    text: string,
  ) => {
    const answer = await work;
    if ('kind' in answer) report({ text: answer.message, problem: true });
    else {
      take(answer);
      report({ text });
      await reload();
    }
    return !('kind' in answer);
  };
  return (
    <>
      {known.sets.length > 0 && (
        <Choice
          label="A set that was kept"
          placeholder="take one up"
          value={chosen}
          onChange={(id) => {
            setChosen(id);
            const found = known.sets.find((set) => String(set.id) === id);
            if (found) takeUp(found.assumptions);
          }}
          options={known.sets.map((set) => ({ value: String(set.id), text: set.label }))}
        />
      )}
      <p className="soft">
        {isInUse ? 'By these Rescue judges names too.' : 'Moved here alone: Rescue goes by those in use.'}
      </p>
      <Line>
        <Button
          isDisabled={isInUse}
          onPress={() => void done(takeAssumptionsAction({ assumptions }), 'The office goes by these assumptions now.')}
        >
          Use for the office
        </Button>
        <Button data-kind="plain" isDisabled={isInUse} onPress={() => takeUp(known.inUse)}>
          Back to those in use
        </Button>
      </Line>
      <Line>
        <Field label="Keep as" hideLabel placeholder="a name for these" value={label} onChange={setLabel} />
        <Button
          isDisabled={label.trim() === ''}
          onPress={async () => {
            if (await done(saveAssumptionsAction({ label, assumptions }), `Kept as “${label.trim()}”.`)) setLabel('');
          }}
        >
          Keep
        </Button>
        {chosen !== null && known.sets.some(({ id }) => String(id) === chosen) && (
          <Button
            data-kind="plain"
            onPress={async () => {
              if (await done(dropAssumptionsAction(Number(chosen)), 'The set is gone.')) setChosen(null);
            }}
          >
            Forget this set
          </Button>
        )}
      </Line>
    </>
  );
}

const same = (one: object, other: object) =>
  JSON.stringify(one, Object.keys(one).sort()) === JSON.stringify(other, Object.keys(one).sort());
