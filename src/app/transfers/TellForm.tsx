'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import type { Told } from '@/usecases/moving/requests';
import type { TransferView } from '@/usecases/moving/underWay';
import { useSave } from '../acts/useSave';
import { codeOfTransferAction, tellTransfersAction } from './actions';
import { sumWords, todoWords } from './moveWords';

/** What is told without more ado at a stage that is the person’s turn. */
export const PLAIN: Partial<Record<TransferView['stage'], { readonly what: Told; readonly text: string }>> = {
  checked: { what: 'the zone is there', text: 'The zone is there' },
  funded: { what: 'auto-renew is off', text: 'Auto-renew is off' },
  'auto-renew off': { what: 'the lock is off', text: 'The lock is off' },
  arrived: { what: 'looked after', text: 'It is looked after' },
  'going back': { what: 'back as it was', text: 'It is as it was' },
};

/** Takes down what a person has done or seen of one transfer. */
export function TellForm({ transfer }: { transfer: TransferView }) {
  const { stage, turn, unicode } = transfer;
  const todo = todoWords(transfer);
  const plain = PLAIN[stage];
  if (turn === 'you' && plain)
    return (
      <>
        <div>{todo}</div>
        <PlainTell transfer={transfer} {...plain} />
      </>
    );
  const Fields = formAt(transfer);
  return Fields && todo ? (
    <Disclosure summary={todo} label={`${todo} ${unicode}`}>
      <Fields transfer={transfer} />
    </Disclosure>
  ) : null;
}

/** The form in which more is told than that it was done; `null` where there is nothing to tell. */
function formAt({ stage, turn, links }: TransferView) {
  if (turn === 'you' && stage === 'unlocked') return CodeForm;
  if (turn === 'you' && stage === 'code held') return RequestedForm;
  if (stage === 'credit awaited') return CreditForm;
  return !links.gaining && (stage === 'pending' || stage === 'approved') ? ArrivedForm : null;
}

interface OneTransfer {
  readonly transfer: TransferView;
}

function PlainTell({ transfer: { id, unicode }, what, text }: OneTransfer & { what: Told; text: string }) {
  const { ask, isBusy } = useSave({ ledger: true });
  return (
    <Button
      isDisabled={isBusy}
      aria-label={`${text}: ${unicode}`}
      onPress={() => void ask(tellTransfersAction([{ id, what }]), 'Taken down.')}
    >
      {text}
    </Button>
  );
}

/** The code that the old registrar has given: kept sealed. */
function CodeForm({ transfer: { id, unicode } }: OneTransfer) {
  const { save, refused, isBusy } = useSave();
  return (
    <Form
      aria-label={`The code of ${unicode}`}
      refused={refused}
      onSubmit={async (form) =>
        void (await save(
          tellTransfersAction([{ id, what: 'the code', code: textOf(form, 'code') }]),
          'The code is kept, sealed.',
        ))
      }
    >
      <Field name="code" label={`Transfer code of ${unicode}`} autoComplete="off" />
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Keep the code
        </Button>
      </Actions>
    </Form>
  );
}

/** The transfer was requested at the new registrar: what it took is told, beside what was expected. */
function RequestedForm({ transfer }: OneTransfer) {
  const { id, unicode, to, currency, quotedMinor } = transfer;
  const { save, ask, refused, isBusy } = useSave({ ledger: true });
  const [isAnother, setAnother] = useState(false);
  const tell = async (form: FormData) =>
    void (await save(
      tellTransfersAction([
        { id, what: 'requested', isAnother, minor: minorIn(form, 'minor'), note: textOf(form, 'note') || undefined },
      ]),
      'Taken down: it is on its way.',
    ));
  return (
    <Form aria-label={`The request for ${unicode}`} refused={refused} onSubmit={tell}>
      <ShownCode id={id} />
      <AmountField
        name="minor"
        label={`Charged by ${to} for ${unicode}, ${currency}`}
        currency={currency}
        amount={quotedMinor === null ? null : { minor: quotedMinor, currency }}
        hint={sumWords(transfer)}
      />
      {quotedMinor !== null && (
        <Check isSelected={isAnother} onChange={setAnother}>
          Another sum than its price list says was charged, with a code or without
        </Check>
      )}
      <Field name="note" label="Receipt" />
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          It is requested
        </Button>
        <Button
          isDisabled={isBusy}
          onPress={() => void ask(tellTransfersAction([{ id, what: 'refused' }]), 'Taken down: it goes back.')}
        >
          It was refused
        </Button>
      </Actions>
    </Form>
  );
}

/** The code, shown when it is asked for. */
function ShownCode({ id }: { id: number }) {
  const [code, setCode] = useState<string | null>(null);
  const show = async () => {
    const answer = await codeOfTransferAction(id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setCode(answer);
  };
  return code === null ? (
    <div>
      <Button onPress={() => void show()}>Show the code</Button>
    </div>
  ) : (
    <code>{code}</code>
  );
}

/** Nobody but a person can see whether it has arrived, or was rejected. */
function ArrivedForm({ transfer: { id, unicode, to } }: OneTransfer) {
  const { save, ask, refused, isBusy } = useSave({ ledger: true });
  const tell = async (form: FormData) =>
    void (await save(
      tellTransfersAction([{ id, what: 'it has arrived', end: dayIn(form, 'end') || undefined }]),
      `${unicode} is at ${to} now.`,
    ));
  return (
    <Form aria-label={`What became of ${unicode}`} refused={refused} onSubmit={tell}>
      <DayField
        name="end"
        label={`The term of ${unicode} ends, as ${to} shows it`}
        hint="empty: worked out from the old end"
      />
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          It has arrived
        </Button>
        <Button
          isDisabled={isBusy}
          onPress={() => void ask(tellTransfersAction([{ id, what: 'rejected' }]), 'Taken down: it goes back.')}
        >
          It was rejected
        </Button>
      </Actions>
    </Form>
  );
}

function CreditForm({ transfer: { id, unicode, currency, chargedMinor } }: OneTransfer) {
  const { save, refused, isBusy } = useSave({ ledger: true });
  const tell = async (form: FormData) =>
    void (await save(
      tellTransfersAction([{ id, what: 'the money is back', minor: minorIn(form, 'minor') }]),
      'Taken down.',
    ));
  return (
    <Form aria-label={`The price of ${unicode}`} refused={refused} onSubmit={tell}>
      <AmountField
        name="minor"
        label={`Came back for ${unicode}, ${currency}`}
        currency={currency}
        amount={chargedMinor === null ? null : { minor: chargedMinor, currency }}
      />
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          The money is back
        </Button>
      </Actions>
    </Form>
  );
}
