'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Notice } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { ForeignTransfer } from '@/usecases/moving/foreign';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import { rejectForeignAction, settleForeignAction } from './actions';

/** Transfers that nobody here asked for: before everything else, each with what ends it. */
export function AlarmPart({ alarms }: { alarms: readonly ForeignTransfer[] }) {
  return alarms.map((alarm) => <Alarm key={alarm.id} alarm={alarm} />);
}

function Alarm({ alarm }: { alarm: ForeignTransfer }) {
  const { style } = useLedger();
  const [isAsking, setAsking] = useState(false);
  const { ask, isBusy } = useSave({ ledger: true });
  const { id, ascii, unicode, account, registrar, notes, isLinked, requestedBy, actsBy, state, seenBy, problem } =
    alarm;
  const settle = (as: 'rejected' | 'in order', words: string) => void ask(settleForeignAction(id, as), words);
  const isGone = state === 'gone';
  return (
    <Notice role="alert" data-kind="caution">
      <h2>
        {isGone ? 'Gone: ' : 'Somebody is taking '}
        <Link href={namePage(ascii)} className="name">
          {unicode}
        </Link>
      </h2>
      <p>
        {isGone
          ? `It has left ${account}, and nobody here moved it. Ring ${registrar} now: the sooner it is told, the sooner it may be brought back.`
          : `${requestedBy ?? 'Somebody'} has asked for a transfer of it away from ${account}, and nobody here did. ${
              actsBy === null
                ? 'Unanswered, it goes through within days.'
                : `Unanswered, it goes through on ${dayWords(actsBy, style)}.`
            }`}
        {seenBy === 'record' && !isGone && ' Its registration record says so.'}
        {seenBy === 'mail' && !isGone && ' A mail says so: look at the registrar whether it is true.'}
      </p>
      {!isLinked && !isGone && (
        <p>
          {account} has no link: reject it at {registrar} now, put the lock on, and change the code.
        </p>
      )}
      {notes && (
        <p className="soft">
          What you wrote down of {registrar}: {notes}
        </p>
      )}
      {problem && <p className="caution">{problem}</p>}
      <Actions>
        {isLinked && !isGone && (
          <Button data-kind="primary" isDisabled={isBusy} onPress={() => setAsking(true)}>
            Reject the transfer of {unicode}…
          </Button>
        )}
        {!isGone && (
          <Button
            isDisabled={isBusy}
            onPress={() => settle('rejected', 'Taken down. Put its lock on, and change its code.')}
          >
            I have had it rejected
          </Button>
        )}
        <Button isDisabled={isBusy} onPress={() => settle('in order', 'Taken down: it is in order.')}>
          It is in order
        </Button>
      </Actions>
      <Dialog title={`Reject the transfer of ${unicode}?`} isOpen={isAsking} onClose={() => setAsking(false)}>
        <p>It stays at {account}. Its lock goes on, and its code is changed, so that nobody can ask again.</p>
        <Actions>
          <Button
            data-kind="primary"
            isDisabled={isBusy}
            onPress={() => {
              setAsking(false);
              void ask(rejectForeignAction(id), `Rejected: ${unicode} stays, locked, with a new code.`);
            }}
          >
            Reject it
          </Button>
          <Button onPress={() => setAsking(false)}>Cancel</Button>
        </Actions>
      </Dialog>
    </Notice>
  );
}
