'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { formatDecimal, parseDecimal } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field, InputBox } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords } from '@/ui/text/words';
import type { RenewalQuote } from '@/usecases/renewals/quote';
import { reportDone } from '../../answers';
import { useLedger } from '../../frame/LedgerProvider';
import { undoAction } from '../../ledger/actions';
import { confirmRenewalAction } from '../actions';

/** What really happened: which names were renewed, what was charged for each, when, by which means, with which reference. */
export function ConfirmForm({ renewalId, quote }: { renewalId: string; quote: RenewalQuote }) {
  const router = useRouter();
  const { meta, style, homeCurrency, reload } = useLedger();
  const items = quote.items.filter((item) => item.refusal === null);
  const [done, setDone] = useState<ReadonlySet<number>>(() => new Set(items.map((item) => item.nameId)));
  const [charged, setCharged] = useState<ReadonlyMap<number, string>>(
    () => new Map(items.map((item) => [item.nameId, item.total ? formatDecimal(item.total) : ''])),
  );
  const [day, setDay] = useState<string>(style.today);
  const [means, setMeans] = useState('');
  const [reference, setReference] = useState('');
  const [problem, setProblem] = useState<{ text: string; field?: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const sent = useRef(false);

  const confirm = async () => {
    if (sent.current) return;
    const told = items.map((item) => {
      const currency =
        item.total?.currency ??
        meta?.rules.accounts.find((account) => account.id === item.accountId)?.currency ??
        homeCurrency;
      const text = charged.get(item.nameId)?.trim() ?? '';
      const amount = text === '' ? null : parseDecimal(text.replaceAll(',', ''), currency);
      return { item, text, amount, done: done.has(item.nameId) };
    });
    const unread = told.find(
      ({ text, amount, done: chosen }) => chosen && text !== '' && (amount === null || amount.minor < 0),
    );
    if (unread) {
      setProblem({
        text: `“${unread.text}” for ${unread.item.unicode} is not an amount. Write it like 11.38.`,
      });
      return;
    }
    sent.current = true;
    setBusy(true);
    const answer = await confirmRenewalAction({
      id: renewalId,
      chargedOn: day,
      means,
      reference,
      items: told.map(({ item, amount, done: chosen }) => ({
        nameId: item.nameId,
        done: chosen,
        ...(amount ? { chargedMinor: amount.minor } : {}),
      })),
    });
    setBusy(false);
    if (isRefusal(answer)) {
      sent.current = false;
      setProblem({ text: answer.message, ...(answer.field ? { field: answer.field } : {}) });
      return;
    }
    reportDone({ ...answer, summary: `${answer.summary}. Undo takes it back in the books only` }, async (batchId) => {
      if (reportDone(await undoAction(batchId), null)) await reload();
    });
    await reload();
    router.push('/ledger');
  };

  return (
    <Section>
      <h2>What really happened</h2>
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
                <Check
                  isSelected={done.has(item.nameId)}
                  onChange={(on) =>
                    setDone((now) => new Set(on ? [...now, item.nameId] : [...now].filter((id) => id !== item.nameId)))
                  }
                >
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
                  onChange={(event) => setCharged((now) => new Map(now).set(item.nameId, event.target.value))}
                />{' '}
                <span className="soft">{item.total?.currency}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      <Fields>
        <Field
          label="Date of the charge"
          value={day}
          onChange={setDay}
          placeholder="2027-05-13"
          problem={problem?.field === 'chargedOn' ? problem.text : null}
        />
        <Field label="Paid by" value={means} onChange={setMeans} placeholder="balance, card" />
        <Field label="Reference" value={reference} onChange={setReference} placeholder="order or receipt number" />
      </Fields>
      {problem && problem.field !== 'chargedOn' && (
        <p className="caution" role="alert">
          {problem.text}
        </p>
      )}
      <Actions>
        <Button data-kind="primary" isDisabled={busy || done.size === 0} onPress={() => void confirm()}>
          Confirm: renewed as written
        </Button>
      </Actions>
    </Section>
  );
}
