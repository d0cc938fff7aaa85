'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { conditionWords, PRICE_ACTIONS, type PriceAction } from '@/core/pricing';
import { formatDay } from '@/core/time';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { PriceRow } from '@/usecases/accounts/prices';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { importPricesAction, removePriceAction, savePriceAction } from '../../actions';

interface PriceListProps {
  readonly accountId: number;
  readonly currency: string;
  readonly prices: readonly PriceRow[];
}

/** What the account charges: by ending and action, dated; a name's own price outranks it. */
export function PriceList({ accountId, currency, prices }: PriceListProps) {
  const { ask } = useSave({ ledger: true });
  const bring = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    await ask(importPricesAction(accountId, await file.text()), (prices) => `${prices} prices brought in.`);
  };
  return (
    <Section>
      <Actions>
        <h2>Prices</h2>
        <FileTrigger acceptedFileTypes={['.csv', 'text/csv']} onSelect={(files) => void bring(files)}>
          <Button data-kind="plain">Bring in a price list (CSV)…</Button>
        </FileTrigger>
      </Actions>
      {prices.length === 0 ? (
        <p className="soft">No price is known. Names here show no cost until one is set.</p>
      ) : (
        <Wide>
          <Ruled>
            <thead>
              <tr>
                <th>Ending</th>
                <th>For</th>
                <th className="figure">A year</th>
                <th>Longer terms, first year</th>
                <th>Registry fee</th>
                <th>From</th>
                <th>Known by</th>
                <th>
                  <span className="visually-hidden">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {prices.map((price) => (
                <tr key={price.id}>
                  <td className="name">{price.ascii ?? `.${price.ending}`}</td>
                  <td>{price.action}</td>
                  <td className="figure">{formatAmount({ minor: price.yearMinor, currency: price.currency })}</td>
                  <td className="soft">{moreOf(price)}</td>
                  <td>{price.feeIncluded ? 'included' : 'added'}</td>
                  <td>{formatDay(price.from)}</td>
                  <td>
                    {price.origin === 'inferred' ? <em>inferred</em> : price.origin}
                    {price.taughtBy && <div className="soft">from {price.taughtBy}</div>}
                  </td>
                  <td>
                    <Button
                      data-kind="plain"
                      aria-label={`Remove ${price.action} ${price.ascii ?? price.ending}`}
                      onPress={() => void ask(removePriceAction(price.id), 'The price is removed.')}
                    >
                      <X size={13} aria-hidden />
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      )}
      <PriceForm accountId={accountId} currency={currency} />
    </Section>
  );
}

function moreOf(price: PriceRow): string {
  const parts = Object.entries(price.termTotals ?? {}).map(
    ([years, minor]) => `${years} years ${formatAmount({ minor, currency: price.currency })}`,
  );
  if (price.firstYearMinor !== null)
    parts.push(
      `first year ${formatAmount({ minor: price.firstYearMinor, currency: price.currency })} (${price.firstYearCondition ? conditionWords(price.firstYearCondition) : 'any term'})`,
    );
  return parts.join(', ');
}

function PriceForm({ accountId, currency }: Pick<PriceListProps, 'accountId' | 'currency'>) {
  const { style } = useLedger();
  const [action, setAction] = useState<PriceAction>('renew');
  const [feeIncluded, setFeeIncluded] = useState(false);
  const { save, refused, isBusy } = useSave({ ledger: true });
  // A saved form begins anew.
  const [round, setRound] = useState(0);

  const savePrice = async (form: FormData) => {
    const of = String(form.get('ending') ?? '').trim();
    const isName = of.replace(/^\./, '').includes('.') && !of.startsWith('.');
    const asked = savePriceAction({
      accountId,
      ...(isName ? { name: of } : { ending: of }),
      action,
      currency,
      yearMinor: minorIn(form, 'yearMinor') ?? Number.NaN,
      firstYearMinor: minorIn(form, 'firstYearMinor'),
      feeIncluded,
      from: dayIn(form, 'from'),
    });
    if ((await save(asked, 'The price is set.')) !== null) setRound((round) => round + 1);
  };

  return (
    <Form key={round} aria-label="A price" refused={refused} onSubmit={savePrice}>
      <Section>
        <Fields>
          <Field name="ending" label="Ending, or a name for its own price" placeholder=".com or seaholly.com" />
          <Choice
            label="For"
            value={action}
            onChange={setAction}
            options={PRICE_ACTIONS.map((value) => ({ value, text: value }))}
          />
          <AmountField name="yearMinor" label={`A year, ${currency}`} currency={currency} />
          {action === 'register' && (
            <AmountField name="firstYearMinor" label={`First year, ${currency}`} currency={currency} />
          )}
          <DayField name="from" label="In force from" defaultValue={style.today} />
        </Fields>
        <Actions>
          <Check isSelected={feeIncluded} onChange={setFeeIncluded}>
            Registry fee included
          </Check>
          <Button type="submit" isDisabled={isBusy}>
            Set the price
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
