'use client';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { NUMBER_STYLES, type NumberStyle } from '@/core/money';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import type { Settings } from '@/usecases/settings';
import { useOpenLedger } from '../acts/ledgers/useOpenLedger';
import { useSave } from '../acts/useSave';
import { useTitle } from '../frame/PageTitle';
import { answerFirstAction } from './actions';
import { type Proposed, proposedFor } from './proposed';

const Questions = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 22px 34px;
  align-items: start;
  & h2 { font-size: 1.07rem; margin-bottom: 8px; }
`;

const Offers = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 0 40px;
  & > section { padding-top: 14px; border-top: 3px solid var(--land-edge); }
`;

/** An empty ledger: three questions, then what there is to begin with. */
export function BeginScreen({ settings, choice }: { settings: Settings; choice: LedgerChoice }) {
  useTitle('Begin');
  const [isAsking, setAsking] = useState(!settings.hasBegun);
  return (
    <Page>
      {isAsking ? (
        <FirstQuestions settings={settings} onAnswered={() => setAsking(false)} />
      ) : (
        <>
          <Head>
            <Answer>Which names do you own?</Answer>
            <p>
              Figures in {settings.homeCurrency}, days as in {settings.zone},{' '}
              {settings.remindTo ? `reminders to ${settings.remindTo}` : 'nobody is reminded by mail'}.{' '}
              <Button data-kind="plain" onPress={() => setAsking(true)}>
                Change it
              </Button>
            </p>
          </Head>
          <WhatToBegin choice={choice} />
        </>
      )}
    </Page>
  );
}

/** Currency and figures, zone, reminders: each proposed from the browser until somebody has answered. */
function FirstQuestions({ settings, onAnswered }: { settings: Settings; onAnswered: () => void }) {
  const [proposed, setProposed] = useState<Proposed | null>(null);
  useEffect(() => {
    setProposed(
      settings.hasBegun ? settings : proposedFor(navigator.language, Intl.DateTimeFormat().resolvedOptions().timeZone),
    );
  }, [settings]);
  return (
    <>
      <Head>
        <Answer>Three questions, then your names.</Answer>
        <p>What your browser says is filled in. All of it can be changed later under Setup.</p>
      </Head>
      {proposed && <QuestionsForm proposed={proposed} settings={settings} onAnswered={onAnswered} />}
    </>
  );
}

function QuestionsForm({
  proposed,
  settings,
  onAnswered,
}: {
  proposed: Proposed;
  settings: Settings;
  onAnswered: () => void;
}) {
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [numberStyle, setNumberStyle] = useState<NumberStyle>(proposed.numberStyle);
  const answer = async (form: FormData) => {
    const asked = answerFirstAction({
      homeCurrency: textOf(form, 'homeCurrency').toUpperCase(),
      numberStyle,
      zone: textOf(form, 'zone'),
      remindTo: textOf(form, 'remindTo'),
    });
    if ((await save(asked, 'Kept.')) !== null) onAnswered();
  };
  return (
    <Form aria-label="Three questions" refused={refused} onSubmit={answer}>
      <Questions>
        <Section>
          <h2>1. In which money do you reckon?</h2>
          <Field
            name="homeCurrency"
            label="Home currency"
            defaultValue={proposed.homeCurrency}
            hint="a code like EUR"
          />
          <Choice
            label="Figures are written"
            value={numberStyle}
            onChange={setNumberStyle}
            options={NUMBER_STYLES.map((style) => ({ value: style, text: style }))}
          />
        </Section>
        <Section>
          <h2>2. Where does your day begin?</h2>
          <Field
            name="zone"
            label="Time zone"
            defaultValue={proposed.zone}
            hint="like Europe/Lisbon; deadlines are shown as days there"
          />
        </Section>
        <Section>
          <h2>3. Who is reminded of deadlines?</h2>
          <Field
            name="remindTo"
            label="Mail address"
            defaultValue={settings.remindTo ?? settings.mail?.to ?? ''}
            hint="empty: nobody for now; the mail server is asked for later"
          />
        </Section>
      </Questions>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Go on
        </Button>
      </Actions>
    </Form>
  );
}

function WhatToBegin({ choice }: { choice: LedgerChoice }) {
  const { doing, open } = useOpenLedger();
  return (
    <Offers>
      <Section aria-label="Your names">
        <h2>Bring a list</h2>
        <p>
          Paste them, or choose a file from a registrar: any columns, any dates. What would be added is shown before
          anything is written, and what is missing afterwards is asked for in one place.
        </p>
        <Actions>
          <ButtonLink href="/ledger/add" data-kind="primary">
            Bring your names
          </ButtonLink>
          <ButtonLink href="/setup/backup">Restore a backup</ButtonLink>
        </Actions>
      </Section>
      {choice.mayChange && (
        <Section aria-label="The demo">
          <h2>Look at the demo first</h2>
          <p>
            412 made-up names of a small office in a harbour town, at five practice registrars. It is a ledger of its
            own: leave it, come back to it, or throw it away. Yours stays as it is.
          </p>
          <Actions>
            <Button isDisabled={doing !== null} onPress={() => void open('demo')}>
              {choice.hasDemo ? 'Go back to the demo' : 'Open the demo'}
            </Button>
            {doing && <span role="status">{doing}… this takes some seconds.</span>}
          </Actions>
        </Section>
      )}
    </Offers>
  );
}
