'use client';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import type { Deposit } from '@/usecases/shop/settings';
import { useSave } from '../acts/useSave';
import { returnDepositAction, takeDepositAction } from './actions';

/** Bids that wait for their deposit, and deposits that have to be given back. */
export function DepositsPart({ deposits }: { deposits: readonly Deposit[] }) {
  if (deposits.length === 0) return null;
  return (
    <Section aria-label="Deposits">
      <h2>Deposits</h2>
      <Ruled data-middle data-list aria-label="Deposits">
        <tbody>
          {deposits.map((deposit) => (
            <DepositRow key={deposit.id} deposit={deposit} />
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

function DepositRow({ deposit }: { deposit: Deposit }) {
  const { save, ask, refused, isBusy } = useSave();
  const { id, unicode, buyer, mail, minor, currency, depositMinor, heldMinor, isEnded } = deposit;
  const money = (amount: number) => formatAmount({ minor: amount, currency }, true);
  const lacking = depositMinor - heldMinor;
  return (
    <tr>
      <td className="name">{unicode}</td>
      <td className="under">
        {buyer}, {mail}
      </td>
      <td className="sentence">
        {isEnded
          ? `The auction is over: ${money(heldMinor)} are to be given back, or counted towards the price.`
          : `Bids up to ${money(minor)}; ${money(lacking)} of the deposit have still to come.`}
      </td>
      <td className="figure">
        {isEnded ? (
          <Button isDisabled={isBusy} onPress={() => void ask(returnDepositAction(id), 'Taken down.')}>
            Given back
          </Button>
        ) : (
          <Form
            aria-label={`Deposit of ${buyer}`}
            refused={refused}
            onSubmit={(form) =>
              void save(
                takeDepositAction(id, decimalIn(form, 'amount', currency)),
                'Taken down. A bid that waited for it counts now.',
              )
            }
          >
            <Actions>
              <AmountField
                name="amount"
                label={`Has come, ${currency}`}
                currency={currency}
                amount={{ minor: lacking, currency }}
              />
              <Button type="submit" isDisabled={isBusy}>
                Take it down
              </Button>
            </Actions>
          </Form>
        )}
      </td>
    </tr>
  );
}
