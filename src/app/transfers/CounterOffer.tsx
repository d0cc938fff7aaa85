'use client';
import { useEffect, useState } from 'react';
import { USUAL_YEARS, type WeighedOffer } from '@/core/ledger';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { yearsWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { noteCounterOfferAction, stayAfterAllAction } from './actions';

/** What the old registrar offers for staying: written down, weighed against moving, and decided before anything is approved. */
export function CounterOffer({ transfer }: { transfer: TransferView }) {
  const { id, unicode, from, counterMinor, counterCurrency, isCounterDeclined } = transfer;
  const { save, refused, isBusy } = useSave();
  const note = async (form: FormData) =>
    void (await save(noteCounterOfferAction(id, { minor: minorIn(form, 'minor') ?? Number.NaN }), 'Written down.'));
  const isOpen = counterMinor !== null && !isCounterDeclined;
  return (
    <Disclosure
      key={String(isOpen)}
      summary={`Does ${from} offer something for staying?`}
      label={`Offer to stay, ${unicode}`}
      isOpenAtFirst={isOpen}
    >
      {counterMinor !== null && <Weighed transfer={transfer} counterMinor={counterMinor} />}
      {!isOpen && (
        <Form aria-label={`Offer for ${unicode}`} refused={refused} onSubmit={note}>
          <AmountField
            name="minor"
            label={`${from} would keep ${unicode} for, a year, ${counterCurrency}`}
            currency={counterCurrency}
          />
          <Actions>
            <Button type="submit" isDisabled={isBusy}>
              Weigh it
            </Button>
          </Actions>
        </Form>
      )}
    </Disclosure>
  );
}

function Weighed({ transfer, counterMinor }: { transfer: TransferView; counterMinor: number }) {
  const { worker, meta, homeCurrency } = useLedger();
  const { ask, isBusy } = useSave({ ledger: true });
  const { id, nameId, toId, unicode, counterCurrency, isCounterDeclined } = transfer;
  const [weighed, setWeighed] = useState<WeighedOffer | null>(null);
  useEffect(() => {
    if (!worker || !meta || toId === null) return;
    let stale = false;
    const offer = { minor: counterMinor, currency: counterCurrency };
    void worker
      .weighOffer(nameId, { offer, targetId: toId, years: USUAL_YEARS })
      .then((found) => !stale && setWeighed(found));
    return () => {
      stale = true;
    };
  }, [worker, meta, nameId, toId, counterMinor, counterCurrency]);
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency });
  return (
    <>
      <p>
        {weighed
          ? `Over ${yearsWords(weighed.years)} staying comes to ${money(weighed.stayMinor)}, moving to ${money(weighed.moveMinor)}.`
          : 'What staying and moving come to is not known: a price or a rate is missing.'}
        {isCounterDeclined && ' You have declined it.'}
      </p>
      {!isCounterDeclined && (
        <Actions>
          <Button
            isDisabled={isBusy}
            onPress={() => void ask(noteCounterOfferAction(id, 'declined'), `Declined: ${unicode} moves.`)}
          >
            Move all the same
          </Button>
          <Button isDisabled={isBusy} onPress={() => void ask(stayAfterAllAction(id), `${unicode} stays where it is.`)}>
            Stay
          </Button>
        </Actions>
      )}
    </>
  );
}
