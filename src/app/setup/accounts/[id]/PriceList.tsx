'use client';
import { X } from 'lucide-react';
import { useState } from 'react';
import { PRICE_ACTIONS, type PriceAction } from '@/core/pricing';
import { formatDay } from '@/core/time';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { PriceRow } from '@/usecases/accounts/prices';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { removePriceAction, savePriceAction } from '../../actions';
import { BringPrices } from './BringPrices';
import { moreOf } from './moreOf';

interface PriceListProps {
  readonly accountId: number;
  readonly currency: string;
  readonly prices: readonly PriceRow[];
}

/** What the account charges: by ending and action, dated; a name's own price outranks it. */
export function PriceList({ accountId, currency, prices }: PriceListProps) {
  const { ask } = useSave({ ledger: true });
  return (
    <Section>
      <h2>Prices</h2>
      {prices.length === 0 ? (
        <p className="soft">No price is known. Names here show no cost until one is set.</p>
      ) : (
        <Wide least={640}>
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
                  <td>{price.item || price.action}</td>
                  <td className="figure">{formatAmount({ minor: price.yearMinor, currency: price.currency })}</td>
                  <td className="soft">{moreOf(price)}</td>
                  <td>{price.feeIncluded ? 'included' : 'added'}</td>
                  <td>{formatDay(price.from)}</td>
                  <td>
                    {price.origin === 'inferred' ? <em>inferred</em> : price.origin}
                    {price.source && <div className="soft">{price.source}</div>}
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
      <BringPrices accountId={accountId} />
      <PriceForm accountId={accountId} currency={currency} />
    </Section>
  );
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
      firstYearCondition: textOf(form, 'firstYearCondition'),
      item: textOf(form, 'item'),
      included: textOf(form, 'included'),
      source: textOf(form, 'source'),
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
            <>
              <AmountField name="firstYearMinor" label={`First year, ${currency}`} currency={currency} />
              <Field
                name="firstYearCondition"
                label="The first year is bound to"
                placeholder="at least 3 years; new customers"
                hint="terms, new customers, code SPRING, or any words"
              />
            </>
          )}
          {action === 'extra' && <Field name="item" label="What the extra is" placeholder="mailbox" />}
          <Field name="included" label="Included" placeholder="mail forwarding" />
          <Field name="source" label="Where it was seen" placeholder="its page of prices" />
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
