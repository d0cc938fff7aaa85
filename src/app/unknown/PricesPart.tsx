'use client';
import type { Unknowns } from '@/core/ledger';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { sayPricesAction } from './actions';
import { FirstOf } from './FirstOf';

const SHOWN = 60;

/** Endings without a renewal price at an account: an amount beside each, written all at once. */
export function PricesPart({ lines, count }: { lines: Unknowns['prices']; count: number }) {
  const { meta } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const accounts = new Map(meta?.rules.accounts.map((account) => [account.id, account]));
  const shown = lines.slice(0, SHOWN);
  const send = (form: FormData) => {
    const prices = shown.flatMap(({ accountId, ending }) => {
      const yearMinor = minorIn(form, `price.${accountId}.${ending}`);
      return yearMinor === undefined
        ? []
        : [{ accountId, ending, yearMinor, currency: accounts.get(accountId)?.currency ?? '' }];
    });
    void save(
      sayPricesAction({ prices, source: textOf(form, 'source') }),
      (written) => `${written === 1 ? 'One price is' : `${written} prices are`} kept, from today on.`,
    );
  };
  return (
    <Section id="prices" aria-label="Prices">
      <h2>{countOf(count, 'name has', 'names have')} no renewal price</h2>
      <p className="soft">
        One amount for each ending at an account is enough. A whole price list as CSV goes to{' '}
        <Link href="/setup/accounts">its account</Link>.
      </p>
      <Form aria-label="Prices" refused={refused} onSubmit={send}>
        <Ruled data-middle aria-label="Endings without a renewal price">
          <thead>
            <tr>
              <th style={{ width: '34%' }}>Ending</th>
              <th>Account</th>
              <th className="figure">Names</th>
              <th style={{ width: 260 }}>A year costs</th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ accountId, ending, names }) => {
              const account = accounts.get(accountId);
              return (
                <tr key={`${accountId} ${ending}`}>
                  <td className="name">.{ending}</td>
                  <td>{account?.label}</td>
                  <td className="figure">{names.toLocaleString('en')}</td>
                  <td>
                    <AmountField
                      name={`price.${accountId}.${ending}`}
                      label={`A year of .${ending} at ${account?.label ?? ''}`}
                      hideLabel
                      currency={account?.currency ?? ''}
                      placeholder={account?.currency}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Ruled>
        <FirstOf shown={shown.length} count={lines.length} />
        <Fields>
          <Field name="source" label="Where the prices stand" defaultValue="" hint="kept with them" />
        </Fields>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Save the prices
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
