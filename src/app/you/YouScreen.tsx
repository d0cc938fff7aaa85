'use client';
import { startRegistration } from '@simplewebauthn/browser';
import { useState } from 'react';
import type { Role } from '@/core/people';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { roleWords } from '@/ui/text/peopleWords';
import { Answer, Head, Page, Ruled, Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { Wide } from '@/ui/text/Wide';
import { dayWords, hourWords } from '@/ui/text/words';
import type { SessionView } from '@/usecases/people/sessions';
import type { Enrolment, OwnWays } from '@/usecases/people/ways';
import { CodesList } from '../acts/signIn/CodesList';
import { PassPhraseForm } from '../acts/signIn/PassPhraseForm';
import { passkeyProblem, step } from '../acts/signIn/steps';
import { toldRefused } from '../acts/toldRefused';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import {
  addPasskeyAction,
  beginPasskeyAction,
  endOwnSessionsAction,
  enrolAction,
  newRecoveryCodesAction,
  removePasskeyAction,
  setPassPhraseAction,
} from './actions';

interface YouProps {
  readonly name: string;
  readonly role: Role;
  readonly ways: OwnWays;
  readonly sessions: readonly SessionView[];
  /** The session that this page is seen in. */
  readonly session: number;
}

/** How one signs in, and where one has. */
export function YouScreen({ name, role, ways, sessions, session }: YouProps) {
  useTitle('Your sign-in', `${name}, ${role}`);
  const signOut = async () => {
    await step('/sign-in/out');
    window.location.assign('/sign-in');
  };
  return (
    <Page>
      <Head>
        <Answer>
          You are {name}, {roleWords(role).as}.
        </Answer>
        <p>
          {roleWords(role).may}{' '}
          <Button data-kind="plain" onPress={() => void signOut()}>
            Sign out
          </Button>
        </p>
      </Head>
      <PasskeysPart ways={ways} />
      <PassPhrasePart has={ways.hasPassPhrase} />
      <RecoveryPart left={ways.recoveryCodesLeft} />
      <SessionsPart sessions={sessions} session={session} />
    </Page>
  );
}

function PasskeysPart({ ways: { passkeys } }: { ways: OwnWays }) {
  const { style } = useLedger();
  const { ask, isBusy } = useSave();
  const add = async () => {
    const begun = await beginPasskeyAction();
    if (toldRefused(begun)) return;
    try {
      const response = await startRegistration({ optionsJSON: begun.options });
      await ask(addPasskeyAction({ token: begun.token, response }, ''), 'This passkey signs you in from now on.');
    } catch (error) {
      report({ text: passkeyProblem(error).message, problem: true });
    }
  };
  return (
    <Section aria-label="Passkeys">
      <h2>{passkeys.length === 0 ? 'No passkey' : countOf(passkeys.length, 'passkey', 'passkeys')}</h2>
      {passkeys.map((passkey) => (
        <Actions key={passkey.id}>
          <span>
            {passkey.label}, made {dayWords(passkey.addedAt, style)},{' '}
            {passkey.usedAt === null ? 'not used since' : `last used ${hourWords(passkey.usedAt, style)}`}
          </span>
          <Button
            data-kind="plain"
            isDisabled={isBusy}
            onPress={() => void ask(removePasskeyAction(passkey.id), 'That passkey opens nothing any more.')}
          >
            Take it away
          </Button>
        </Actions>
      ))}
      <Actions>
        <Button isDisabled={isBusy} onPress={() => void add()}>
          Add a passkey
        </Button>
      </Actions>
    </Section>
  );
}

function PassPhrasePart({ has }: { has: boolean }) {
  const { save } = useSave();
  const [enrolment, setEnrolment] = useState<Enrolment | null>(null);
  const begin = async () => {
    const made = await enrolAction();
    if (!toldRefused(made)) setEnrolment(made);
  };
  if (enrolment)
    return (
      <PassPhraseForm
        enrolment={enrolment}
        send={setPassPhraseAction}
        onDone={() => {
          setEnrolment(null);
          void save(Promise.resolve(true as const), 'Kept. Every other session of yours has ended.');
        }}
        done="Sign in so from now on"
      />
    );
  return (
    <Section aria-label="Pass phrase">
      <h2>{has ? 'A pass phrase with codes' : 'No pass phrase'}</h2>
      <Actions>
        <Button onPress={() => void begin()}>
          {has ? 'Take another, with new codes' : 'Take a pass phrase with codes'}
        </Button>
      </Actions>
    </Section>
  );
}

function RecoveryPart({ left }: { left: number }) {
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  const make = async () => {
    const made = await newRecoveryCodesAction();
    if (!isRefusal(made)) setCodes(made);
    else report({ text: made.message, problem: true });
  };
  return (
    <Section aria-label="Recovery codes">
      <h2>{countOf(left, 'recovery code left', 'recovery codes left')}</h2>
      {codes ? (
        <CodesList codes={codes} />
      ) : (
        <Actions>
          <Button onPress={() => void make()}>Make new ones</Button>
          <span className="soft">the old ones hold no longer then</span>
        </Actions>
      )}
    </Section>
  );
}

function SessionsPart({ sessions, session }: { sessions: readonly SessionView[]; session: number }) {
  const { style } = useLedger();
  const { ask, isBusy } = useSave();
  return (
    <Section aria-label="Sessions">
      <h2>Where you are signed in</h2>
      <Wide>
        <Ruled data-list aria-label="Sessions">
          <thead>
            <tr>
              <th>With</th>
              <th style={{ width: 150 }}>From</th>
              <th style={{ width: 160 }}>Since</th>
              <th style={{ width: 160 }}>Last seen</th>
              <th style={{ width: 160 }}>Ends</th>
              <th style={{ width: 110 }}>
                <span className="visually-hidden">End it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sessions.map((one) => (
              <tr key={one.id}>
                <td>
                  {agentWords(one.agent)}, by {one.way}
                </td>
                <td>{one.address}</td>
                <td>{hourWords(one.beganAt, style)}</td>
                <td>{hourWords(one.seenAt, style)}</td>
                <td>{hourWords(one.endsAt, style)}</td>
                <td>
                  {one.id === session ? (
                    'this one'
                  ) : (
                    <Button
                      data-kind="plain"
                      isDisabled={isBusy}
                      onPress={() => void ask(endOwnSessionsAction(one.id), 'That session has ended.')}
                    >
                      End it
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      {sessions.length > 1 && (
        <Actions>
          <Button
            isDisabled={isBusy}
            onPress={() => void ask(endOwnSessionsAction(null), 'Every other session has ended.')}
          >
            End every other one
          </Button>
        </Actions>
      )}
    </Section>
  );
}

/** A browser as it calls itself, as far as a person knows the name. */
function agentWords(agent: string): string {
  const system = /\(([^;)]+)/.exec(agent)?.[1] ?? 'an unknown system';
  return `a browser on ${system}`;
}
