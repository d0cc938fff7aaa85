'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { hourWords } from '@/ui/text/words';
import type { MadeWebhook, WebhookRow } from '@/usecases/programs/webhooks';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { removeWebhookAction, renewSecretAction, setWebhookPausedAction } from './actions';
import { NewWebhook } from './NewWebhook';

/** What there is for other programs: the interface, and who is told of what happens. */
export function ProgramsScreen({ webhooks, base }: { webhooks: readonly WebhookRow[]; base: string }) {
  useTitle('Programs', 'what others may ask, and who is told');
  const [made, setMade] = useState<MadeWebhook | null>(null);
  return (
    <Page>
      <Head>
        <Answer>{answerOf(webhooks)}</Answer>
        <p>
          Programs on this machine may do all that the screens do, at <code>{base}/api/v1</code>.{' '}
          <a href="/api/v1/openapi.json">Its description</a> is OpenAPI 3.1. What happens can be read from{' '}
          <code>/events</code>, or is told to an address as it happens.
        </p>
      </Head>
      {made && (
        <Notice role="status">
          The secret that signs for {made.webhook.label}: copy it now, it is not shown again. <code>{made.secret}</code>
        </Notice>
      )}
      {webhooks.length > 0 && <WebhooksTable webhooks={webhooks} onMade={setMade} />}
      <NewWebhook onMade={setMade} />
    </Page>
  );
}

function answerOf(webhooks: readonly WebhookRow[]): string {
  if (webhooks.length === 0) return 'No program is told of what happens.';
  const told =
    webhooks.length === 1
      ? 'One program is told of what happens'
      : `${webhooks.length} programs are told of what happens`;
  const failing = webhooks.filter(({ problem, paused }) => problem !== null || paused).length;
  return failing === 0 ? `${told}.` : `${told}; ${failing === 1 ? 'one takes' : `${failing} take`} nothing now.`;
}

function WebhooksTable({
  webhooks,
  onMade,
}: {
  webhooks: readonly WebhookRow[];
  onMade: (made: MadeWebhook | null) => void;
}) {
  const { style } = useLedger();
  const { ask, isBusy } = useSave();
  const renew = async (id: number) => {
    const renewed = await ask(renewSecretAction(id), 'The old secret signs nothing any more.');
    if (renewed) onMade(renewed);
  };
  const pause = (one: WebhookRow) =>
    ask(
      setWebhookPausedAction(one.id, !one.paused),
      one.paused
        ? `${one.label} is told from where it stood.`
        : `${one.label} is told nothing for now; what happens is kept.`,
    );
  const remove = async (one: WebhookRow) => {
    if (await ask(removeWebhookAction(one.id), `${one.label} is told no longer.`)) onMade(null);
  };
  return (
    <Section aria-label="Programs that are told">
      <Wide>
        <Ruled data-list aria-label="Programs that are told">
          <thead>
            <tr>
              <th style={{ width: 150 }}>Program</th>
              <th>Is told</th>
              <th style={{ width: 150 }}>Last</th>
              <th style={{ width: 270 }}>
                <span className="visually-hidden">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {webhooks.map((one) => (
              <tr key={one.id}>
                <td>{one.label}</td>
                <td className="sentence">
                  {one.kinds.length === 0 ? 'everything' : one.kinds.join(', ')}, at <code>{one.url}</code>
                  <StandingOf webhook={one} />
                </td>
                <td>{one.toldAt === null ? 'not yet' : hourWords(one.toldAt, style)}</td>
                <td>
                  <Actions>
                    <Button isDisabled={isBusy} onPress={() => void pause(one)}>
                      {one.paused ? 'Go on' : 'Pause'}
                    </Button>
                    <Button isDisabled={isBusy} onPress={() => void renew(one.id)}>
                      New secret
                    </Button>
                    <Button isDisabled={isBusy} onPress={() => void remove(one)}>
                      Remove
                    </Button>
                  </Actions>
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

/** Why one takes nothing now, and what happens next. */
function StandingOf({ webhook: { paused, problem, attempts, nextAt } }: { webhook: WebhookRow }) {
  const { style } = useLedger();
  if (paused)
    return (
      <div className={problem ? 'caution' : 'soft'}>
        Paused{problem ? `: ${problem}. Mend it there, then let it go on` : ''}. What happens is kept for ninety days.
      </div>
    );
  if (problem === null) return null;
  return (
    <div className="caution">
      Sent {attempts === 1 ? 'once' : `${attempts} times`}, not taken: {problem}. Sent again
      {nextAt === null ? ' at once' : ` ${hourWords(nextAt, style)}`}.
    </div>
  );
}
