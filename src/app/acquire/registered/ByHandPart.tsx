'use client';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Section } from '@/ui/text/Sheet';
import { yearsWords } from '@/ui/text/words';
import type { RegistrationRow } from '@/usecases/acquiring/register';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { tellRegistrationAction } from '../actions';

/** What a person does at the registrar, exactly, and says afterwards; or decides where an order is in doubt. */
export function ByHandPart({ registration }: { registration: RegistrationRow }) {
  const { meta, style } = useLedger();
  const { save, ask, refused, isBusy } = useSave({ ledger: true });
  const [isOther, setOther] = useState(false);
  const { id, unicode, accountId, quotedMinor, currency, problem, byHand } = registration;
  const account = meta?.rules.accounts.find((one) => one.id === accountId);
  const tell = (form: FormData) =>
    save(
      tellRegistrationAction({
        id,
        came: 'registered',
        chargedMinor: minorIn(form, 'chargedMinor'),
        chargedOn: dayIn(form, 'chargedOn'),
        reference: String(form.get('reference') ?? ''),
        isOtherSum: isOther,
      }),
      `${unicode} is in the ledger.`,
    );
  const ended = (came: 'somebody else' | 'not wanted') =>
    ask(tellRegistrationAction({ id, came }), `${unicode}: taken down.`);
  return (
    <Section aria-label={`Register ${unicode}`}>
      <h2>
        {byHand ? 'Register ' : 'In doubt: '}
        <span className="name">{unicode}</span> at {account?.label}
      </h2>
      {problem && <p className="caution">{problem}</p>}
      {byHand && <Steps registration={registration} />}
      <Form refused={refused} onSubmit={async (form) => void (await tell(form))} aria-label={`What came of ${unicode}`}>
        <Fields>
          <AmountField
            name="chargedMinor"
            label={`Charged for ${unicode}, ${currency}`}
            currency={currency}
            amount={quotedMinor === null ? null : { minor: quotedMinor, currency }}
          />
          <DayField name="chargedOn" label="On" defaultValue={style.today} />
          <Field name="reference" label="Receipt" />
        </Fields>
        <Check isSelected={isOther} onChange={setOther}>
          Another sum than was shown was charged
        </Check>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            It is registered
          </Button>
          <Button onPress={() => void ended('somebody else')}>Somebody else has it</Button>
          <Button onPress={() => void ended('not wanted')}>Not registered after all</Button>
        </Actions>
      </Form>
    </Section>
  );
}

/** What is to be done at the registrar, in its order, with the name to copy. */
function Steps({ registration }: { registration: RegistrationRow }) {
  const { meta } = useLedger();
  const { ascii, accountId, years, autoRenew, privacy, nameServers, quotedMinor, currency } = registration;
  const account = meta?.rules.accounts.find((one) => one.id === accountId);
  const copy = async () => {
    await navigator.clipboard.writeText(ascii);
    report({ text: `${ascii} is copied.` });
  };
  return (
    <ol>
      <li>
        Log in at {account?.registrar} and look for <b className="name">{ascii}</b>{' '}
        <Button data-kind="plain" onPress={() => void copy()}>
          Copy it
        </Button>
      </li>
      <li>
        Take it for {yearsWords(years)}, auto-renew {autoRenew ? 'on' : 'off'}, {privacy ? 'with' : 'without'} privacy
        {nameServers.length > 0 ? `, name servers ${nameServers.join(', ')}` : ''}, and nothing else.
      </li>
      <li>
        Pay {quotedMinor === null ? 'what it costs' : formatAmount({ minor: quotedMinor, currency })}, and no more.
        Write here what was charged.
      </li>
    </ol>
  );
}
