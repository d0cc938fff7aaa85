'use client';
import { useState } from 'react';
import { amount, formatAmount, parseDecimal } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import type { Settings } from '@/usecases/settings';
import { useLedger } from '../frame/LedgerProvider';
import { saveSaleOddsAction } from './actions';

const shareOf = (text: string) => Number(text.replace('%', '').replace(',', '.')) / 100;
const percentOf = (share: number) => String(Math.round(share * 10_000) / 100);

/** What is assumed of selling, and how far a given budget goes. */
export function BudgetPart({
  odds,
  currencies,
  onChoose,
}: {
  odds: Settings['saleOdds'];
  currencies: readonly string[];
  onChoose: (nameIds: readonly number[], currency: string) => void;
}) {
  const { worker, reload } = useLedger();
  const [chance, setChance] = useState(percentOf(odds.chance));
  const [commission, setCommission] = useState(percentOf(odds.commission));
  const [currency, setCurrency] = useState(currencies[0] ?? 'USD');
  const [budget, setBudget] = useState('');
  const [problem, setProblem] = useState<string | null>(null);

  const saveOdds = async () => {
    if (chance === percentOf(odds.chance) && commission === percentOf(odds.commission)) return;
    const answer = await saveSaleOddsAction({ chance: shareOf(chance), commission: shareOf(commission) });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else await reload();
  };

  const choose = async () => {
    const sum = parseDecimal(budget.replaceAll(',', ''), currency);
    setProblem(sum === null || sum.minor < 0 ? 'Write the budget as a plain amount, like 150.' : null);
    if (!worker || sum === null || sum.minor < 0) return;
    const ids = await worker.bestSet(currency, sum.minor);
    onChoose(ids, currency);
    report({
      text:
        ids.length === 0
          ? `${formatAmount(amount(sum.minor, currency))} keeps none that is worth it.`
          : `${formatAmount(amount(sum.minor, currency))} goes as far as ${namesWords(ids.length)}.`,
    });
  };

  return (
    <Section aria-label="Chances and budget">
      <Fields>
        <Field
          label="Chance of a sale in a year, percent"
          value={chance}
          onChange={setChance}
          onBlur={() => void saveOdds()}
          inputMode="decimal"
        />
        <Field
          label="Commission, percent"
          value={commission}
          onChange={setCommission}
          onBlur={() => void saveOdds()}
          inputMode="decimal"
        />
        <Field
          label={`Budget, ${currency}`}
          value={budget}
          onChange={setBudget}
          inputMode="decimal"
          problem={problem}
        />
        {currencies.length > 1 && (
          <Choice
            label="Budget in"
            value={currency}
            onChange={setCurrency}
            options={currencies.map((code) => ({ value: code, text: code }))}
          />
        )}
      </Fields>
      <Actions>
        <Button isDisabled={budget.trim() === ''} onPress={() => void choose()}>
          Choose the best set
        </Button>
      </Actions>
    </Section>
  );
}
