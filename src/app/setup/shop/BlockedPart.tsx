'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { BlockedSender } from '@/usecases/shop/settings';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { blockSenderAction, unblockSenderAction } from './actions';

/** Senders of whom nothing is heard; they are not told. */
export function BlockedPart({ blocked }: { blocked: readonly BlockedSender[] }) {
  const { style } = useLedger();
  const { save, ask, refused, isBusy } = useSave();
  const [round, setRound] = useState(0);
  const block = async (form: FormData) => {
    if ((await save(blockSenderAction(textOf(form, 'sender').trim()), 'Nothing more is heard of them.')) !== null)
      setRound(round + 1);
  };
  return (
    <Section aria-label="Blocked senders">
      <h2>Blocked senders</h2>
      {blocked.length === 0 ? (
        <p className="soft">Nobody is blocked.</p>
      ) : (
        <Ruled data-middle>
          <thead>
            <tr>
              <th scope="col">Sender</th>
              <th scope="col">Since</th>
              <th scope="col">By</th>
              <th scope="col">
                <span className="visually-hidden">Act</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {blocked.map(({ sender, at, person }) => (
              <tr key={sender}>
                <td className="name">{sender}</td>
                <td>{dayWords(at, style)}</td>
                <td>{person ?? ''}</td>
                <td className="figure">
                  <Button
                    data-kind="plain"
                    isDisabled={isBusy}
                    onPress={() => void ask(unblockSenderAction(sender), 'Heard again.')}
                  >
                    Hear again<span className="visually-hidden"> {sender}</span>
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
      <Form key={round} aria-label="Block a sender" refused={refused} onSubmit={(form) => void block(form)}>
        <Actions>
          <Field name="sender" label="Mail address, or @host" />
          <Button type="submit" isDisabled={isBusy}>
            Block
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
