'use client';
import { useState } from 'react';
import { type Amount, readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { report } from '@/ui/overlay/Toasts';
import { BudgetLine } from '@/ui/strip/BudgetLine';
import { formatAmount } from '@/ui/text/figures';
import { Sentence } from '@/ui/text/Sentence';
import { Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { Settings } from '@/usecases/settings';
import { useLedger } from '../frame/LedgerProvider';
import { saveSaleOddsAction } from './actions';

const percentOf = (share: number) => String(Math.round(share * 10_000) / 100);

interface BudgetPartProps {
  readonly odds: Settings['saleOdds'];
  readonly currencies: readonly string[];
  /** What the chosen names cost, by currency. */
  readonly costs: readonly Amount[];
  readonly onChoose: (nameIds: readonly number[], currency: string) => void;
}

/** What is assumed of selling, and how far a given budget goes. */
export function BudgetPart({ odds, currencies, costs, onChoose }: BudgetPartProps) {
  const { worker } = useLedger();
  const [currency, setCurrency] = useState(currencies[0] ?? 'USD');
  const [budget, setBudget] = useState<Amount | null>(null);

  const choose = async () => {
    if (!worker || budget === null) return;
    const ids = await worker.bestSet(currency, budget.minor);
    onChoose(ids, currency);
    report({
      text:
        ids.length === 0
          ? `${formatAmount(budget)} keeps none that is worth it.`
          : `${formatAmount(budget)} goes as far as ${namesWords(ids.length)}.`,
    });
  };

  return (
    <Section aria-label="Chances and budget">
      <Sentence>
        <OddsFields odds={odds} />
      </Sentence>
      <Sentence>
        With
        <AmountField
          key={currency}
          label={`Budget, ${currency}`}
          hideLabel
          placeholder="a budget"
          currency={currency}
          onChange={(_, read) => setBudget(read)}
        />
        {currencies.length > 1 ? (
          <Choice
            label="Budget in"
            hideLabel
            value={currency}
            onChange={(code) => {
              setCurrency(code);
              setBudget(null);
            }}
            options={currencies.map((code) => ({ value: code, text: code }))}
          />
        ) : (
          currency
        )}
        <Button isDisabled={budget === null} onPress={() => void choose()}>
          Choose the best set
        </Button>
      </Sentence>
      {budget !== null && (
        <BudgetLine
          budgetMinor={budget.minor}
          spentMinor={costs.find((cost) => cost.currency === currency)?.minor ?? 0}
          label={`${amountsWords(costs.filter((cost) => cost.currency === currency))} of a budget of ${formatAmount(budget)} is chosen`}
        />
      )}
    </Section>
  );
}

/** What a verdict reckons with: kept as soon as a field is left. */
function OddsFields({ odds }: { odds: Settings['saleOdds'] }) {
  const { reload } = useLedger();
  const [chance, setChance] = useState(percentOf(odds.chance));
  const [commission, setCommission] = useState(percentOf(odds.commission));
  const [unread, setUnread] = useState<{ chance?: string; commission?: string }>({});
  const saveOdds = async () => {
    if (chance === percentOf(odds.chance) && commission === percentOf(odds.commission)) return;
    const [likely, kept] = [readPercent(chance), readPercent(commission)];
    setUnread({
      ...(isRefusal(likely) ? { chance: likely.message } : {}),
      ...(isRefusal(kept) ? { commission: kept.message } : {}),
    });
    if (isRefusal(likely) || isRefusal(kept)) return;
    const answer = await saveSaleOddsAction({ chance: likely / 100, commission: kept / 100 });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else await reload();
  };

  return (
    <>
      By a chance of a sale of
      <Field
        data-wide="short"
        hideLabel
        label="Chance of a sale in a year, percent"
        value={chance}
        onChange={setChance}
        problem={unread.chance ?? null}
        onBlur={() => void saveOdds()}
        inputMode="decimal"
      />
      percent a year before own sales and a commission of
      <Field
        data-wide="short"
        hideLabel
        label="Commission, percent"
        value={commission}
        onChange={setCommission}
        problem={unread.commission ?? null}
        onBlur={() => void saveOdds()}
        inputMode="decimal"
      />
      percent. <Link href="/prospects">All assumptions</Link>
    </>
  );
}
