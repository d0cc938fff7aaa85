'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { OpenRenewal } from '@/usecases/orders/plan';
import type { RunProgress } from '@/usecases/orders/start';
import { useTitle } from '../../frame/PageTitle';
import type { Asked } from './Asked';
import { ConfirmForm } from './ConfirmForm';
import { LinkedRun } from './LinkedRun';
import { LongerTerm } from './LongerTerm';
import { QuoteTable } from './QuoteTable';
import type { NamedReport } from './ReportForm';
import { RestoreTable } from './RestoreTable';
import { SettledRun } from './SettledRun';
import { StepsAtRegistrars } from './StepsAtRegistrars';
import { TermsForm } from './TermsForm';
import { linkedItems } from './useLinkedRun';
import { partOf, takenFor, useOpenRenewal } from './useOpenRenewal';

interface RenewScreenProps {
  readonly first: OpenRenewal;
  readonly progress: RunProgress;
  /** The reports of a restore. */
  readonly reports: readonly NamedReport[];
}

/** Renewing: terms and cost; over a link where the account has one, else what to do there and what really happened. */
export function RenewScreen({ first, progress: firstProgress, reports }: RenewScreenProps) {
  const state = useOpenRenewal(first);
  const { renewal, quote } = state;
  const [progress, setProgress] = useState(firstProgress);
  const isRestore = renewal.action === 'restore';
  useTitle(isRestore ? 'Restore' : 'Renew', namesWords(renewal.items.length));
  if (renewal.status === 'confirmed' || renewal.status === 'dropped') return <SettledRun renewal={renewal} />;

  const isLinked = (item: { readonly accountId: number }) => progress.linkedAccounts.includes(item.accountId);
  const byLink = partOf(quote, isLinked);
  const isBegun = progress.items.some((item) => !['planned', 'refused'].includes(item.state));
  return (
    <Page>
      {!isBegun && (
        <PlannedPart
          state={state}
          isRestore={isRestore}
          asked={new Map(linkedItems(byLink, progress).map((one) => [one.item.nameId, one]))}
        />
      )}
      {byLink.items.length > 0 && (
        <LinkedRun
          id={renewal.id}
          quote={byLink}
          progress={progress}
          reports={reports}
          words={renewal.report}
          onProgress={setProgress}
        />
      )}
      <ByHandPart state={state} isLinked={isLinked} isFirst={byLink.items.length === 0} />
      {!isBegun && (
        <Actions>
          <Button onPress={() => void state.discard()}>
            {renewal.status === 'planned' ? 'Discard this run' : 'It was not done: discard this run'}
          </Button>
        </Actions>
      )}
    </Page>
  );
}

type OpenState = ReturnType<typeof useOpenRenewal>;

/** What the run would do and cost, and what changes that. */
function PlannedPart({ state, isRestore, asked }: { state: OpenState; isRestore: boolean; asked: Asked }) {
  const { renewal, quote, terms, refused } = state;
  const [isComparing, setComparing] = useState(false);
  const isPlanned = renewal.status === 'planned';
  const onPayBy = (accountId: number, paymentMethod: string | null) => void state.payBy(accountId, paymentMethod);
  if (isRestore)
    return (
      <Section>
        <RestoreTable quote={quote} asked={asked} payBy={renewal.payBy} onPayBy={onPayBy} />
      </Section>
    );
  return (
    <>
      <Section>
        {quote.items.some((item) => item.phase === 'late') && (
          <Notice>
            Past its term: a transfer within the late window (grace period) can drop the year that is paid here. If a
            name is to move, let it arrive first and renew it there.
          </Notice>
        )}
        <QuoteTable
          quote={quote}
          asked={asked}
          payBy={renewal.payBy}
          onPayBy={onPayBy}
          locked={!isPlanned}
          onYears={(nameId, years) => void state.change(new Map([[nameId, years]]))}
        />
        {isPlanned && (
          <TermsForm terms={terms} refused={refused} onTerms={state.setTerms} onChange={() => void state.change()} />
        )}
      </Section>
      {isPlanned && (
        <details onToggle={(event) => setComparing(event.currentTarget.open)}>
          <summary>Longer now or yearly?</summary>
          {isComparing && <LongerTerm id={renewal.id} onTake={(years) => void state.change(takenFor(quote, years))} />}
        </details>
      )}
    </>
  );
}

interface ByHandPartProps {
  readonly state: OpenState;
  readonly isLinked: (item: { readonly accountId: number }) => boolean;
  /** Nothing of the run goes over a link: this is the main thing to do. */
  readonly isFirst: boolean;
}

/** What is done at registrars without a link: the steps first, then what really happened. */
function ByHandPart({ state, isLinked, isFirst }: ByHandPartProps) {
  const { renewal, quote } = state;
  const byHand = partOf(quote, (item) => !isLinked(item));
  const isOpen = renewal.items.some(
    (item) =>
      item.state === 'planned' && item.done === null && byHand.items.some(({ nameId }) => nameId === item.nameId),
  );
  if (!isOpen) return null;
  if (renewal.status !== 'planned')
    return (
      <>
        <StepsAtRegistrars quote={byHand} payBy={renewal.payBy} />
        <ConfirmForm renewalId={renewal.id} quote={byHand} />
      </>
    );
  return (
    <Actions>
      <Button
        data-kind={isFirst ? 'primary' : undefined}
        isDisabled={byHand.items.every((item) => item.refusal !== null)}
        onPress={() => void state.request()}
      >
        {isFirst ? 'Next' : 'By hand'}: what to do for {amountsWords(byHand.totals)}
      </Button>
    </Actions>
  );
}
