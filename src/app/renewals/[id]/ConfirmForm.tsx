'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { Amount } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, writtenDay } from '@/ui/controls/DayField';
import { Field, InputBox } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { readTyped, spellAmount, typedAmount } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords } from '@/ui/text/words';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import { useAct } from '../../acts/useAct';
import { useLedger } from '../../frame/LedgerProvider';
import { confirmRenewalAction } from '../actions';

/** What really happened: which names were renewed, what was charged for each, when, by which payment method, with which reference. */
export function ConfirmForm({ renewalId, quote }: { renewalId: string; quote: RenewalQuote }) {
  const router = useRouter();
  const { meta, style, homeCurrency } = useLedger();
  const items = quote.items.filter((item) => item.refusal === null);
  const [done, setDone] = useState<ReadonlySet<number>>(() => new Set(items.map((item) => item.nameId)));
  const [charged, setCharged] = useState<ReadonlyMap<number, string>>(
    () => new Map(items.map((item) => [item.nameId, item.total ? typedAmount(item.total) : ''])),
  );
  const [day, setDay] = useState<string>(style.today);
  const [paymentMethod, setPaymentMethods] = useState('');
  const [reference, setReference] = useState('');
  const { act, isBusy, refused } = useAct();
  const sent = useRef(false);

  const currencyOf = (item: QuotedItem) =>
    item.total?.currency ??
    meta?.rules.accounts.find((account) => account.id === item.accountId)?.currency ??
    homeCurrency;
  const confirm = async () => {
    if (sent.current) return;
    const told = items.map((item) => ({
      item,
      read: readCharged(charged, item, currencyOf(item)),
      done: done.has(item.nameId),
    }));
    // What is no amount is refused where it stands.
    if (told.some(({ read, done: chosen }) => chosen && isRefusal(read))) return;
    sent.current = true;
    const request = {
      id: renewalId,
      chargedOn: writtenDay(day),
      paymentMethod,
      reference,
      items: told.map(({ item, read, done: chosen }) => ({
        nameId: item.nameId,
        done: chosen,
        ...(read && !isRefusal(read) ? { chargedMinor: read.minor } : {}),
      })),
    };
    const isDone = await act(async () => {
      const answer = await confirmRenewalAction(request);
      return isRefusal(answer)
        ? answer
        : { ...answer, summary: `${answer.summary}. Undo takes it back in the books only` };
    });
    sent.current = isDone;
    if (isDone) router.push('/ledger');
  };

  return (
    <Section>
      <h2>What really happened</h2>
      <ChargedTable
        items={items}
        done={done}
        charged={charged}
        currencyOf={currencyOf}
        onDone={(nameId, on) =>
          setDone((now) => new Set(on ? [...now, nameId] : [...now].filter((id) => id !== nameId)))
        }
        onCharged={(nameId, text) => setCharged((now) => new Map(now).set(nameId, text))}
      />
      <Fields>
        <DayField
          label="Date of the charge"
          value={day}
          onChange={(text) => setDay(text)}
          problem={refused?.field === 'chargedOn' ? refused.message : null}
        />
        <Field label="Paid by" value={paymentMethod} onChange={setPaymentMethods} placeholder="balance, card" />
        <Field label="Reference" value={reference} onChange={setReference} placeholder="order or receipt number" />
      </Fields>
      <Actions>
        <Button data-kind="primary" isDisabled={isBusy || done.size === 0} onPress={() => void confirm()}>
          Confirm: renewed as written
        </Button>
      </Actions>
    </Section>
  );
}

/** What was understood of an amount that was typed beside it, or why it was not. */
function Understood({ id, read, currency }: { id: string; read: Amount | Refusal | null; currency: string }) {
  return (
    <span id={id} className={isRefusal(read) ? 'caution' : 'soft'} aria-live="polite">
      {read === null ? currency : isRefusal(read) ? read.message : spellAmount(read)}
    </span>
  );
}

/** What was typed for an item, as an amount; `null` for nothing. */
function readCharged(charged: ReadonlyMap<number, string>, { nameId }: QuotedItem, currency: string) {
  const text = charged.get(nameId)?.trim() ?? '';
  return text === '' ? null : readTyped(text, currency);
}

interface ChargedTableProps {
  readonly items: readonly QuotedItem[];
  /** The names that were renewed. */
  readonly done: ReadonlySet<number>;
  /** What was typed as charged, by name. */
  readonly charged: ReadonlyMap<number, string>;
  readonly currencyOf: (item: QuotedItem) => string;
  readonly onDone: (nameId: number, isDone: boolean) => void;
  readonly onCharged: (nameId: number, text: string) => void;
}

/** Which names were renewed, and what was really charged for each. */
function ChargedTable({ items, done, charged, currencyOf, onDone, onCharged }: ChargedTableProps) {
  return (
    <Ruled aria-label="What was charged">
      <thead>
        <tr>
          <th>Renewed</th>
          <th className="figure">Quoted</th>
          <th>Charged</th>
        </tr>
      </thead>
      <tbody>
        {items.map((item) => (
          <tr key={item.nameId}>
            <td>
              <Check isSelected={done.has(item.nameId)} onChange={(on) => onDone(item.nameId, on)}>
                <span className="name">{item.unicode}</span>
              </Check>
            </td>
            <td className="figure">{amountsWords(item.total ? [item.total] : [])}</td>
            <td>
              <InputBox
                aria-label={`Charged for ${item.unicode}`}
                inputMode="decimal"
                style={{ width: 110 }}
                value={charged.get(item.nameId) ?? ''}
                aria-invalid={isRefusal(readCharged(charged, item, currencyOf(item)))}
                aria-describedby={`charged-${item.nameId}`}
                onChange={(event) => onCharged(item.nameId, event.target.value)}
              />{' '}
              <Understood
                id={`charged-${item.nameId}`}
                read={readCharged(charged, item, currencyOf(item))}
                currency={currencyOf(item)}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </Ruled>
  );
}
