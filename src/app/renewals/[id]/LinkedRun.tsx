'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { amountsWords, namesWords, termEndWords } from '@/ui/text/words';
import { TopUp } from '../../acts/fund/TopUp';
import { useLedger } from '../../frame/LedgerProvider';
import { LinkedTable } from './LinkedTable';
import { Otherwise } from './Otherwise';
import { isCertified, type NamedReport, ReportForm } from './ReportForm';
import {
  differingPrices,
  type LinkedItem,
  type LinkedRunProps,
  type LinkedRunState,
  unpaidAccounts,
  useLinkedRun,
} from './useLinkedRun';

const VERBS = {
  renew: { verb: 'Renew', past: 'renewed', going: 'Renewing', noun: 'A renewal' },
  restore: { verb: 'Restore', past: 'restored', going: 'Restoring', noun: 'A restore' },
} as const;

/** The names of a run whose accounts have a link: priced live, confirmed once, then carried out item by item. */
export function LinkedRun({ reports, ...props }: LinkedRunProps & { readonly reports: readonly NamedReport[] }) {
  const { quote } = props;
  const run = useLinkedRun(props);
  const [isConfirming, setConfirming] = useState(false);
  const { items, count, startable, costs, isAsking, isUnderWay, isBegun } = run;
  const { verb, past, going } = VERBS[quote.action];
  const differing = differingPrices(items);
  return (
    <Section aria-label="By link">
      <h2>
        By link{isBegun ? `: ${count('done')} of ${items.length} ${past}` : `: ${namesWords(items.length)}`}
        {count('refused') > 0 && `, ${count('refused')} refused`}
        {count('report refused') > 0 && `, ${count('report refused')} with the report refused`}
        {count('doubt') > 0 && `, ${count('doubt')} in doubt`}
      </h2>
      {isUnderWay && (
        <Progress done={count('done', 'refused', 'doubt', 'report refused')} total={items.length} text={going} />
      )}
      {unpaidAccounts(quote, items).map(({ id: accountId, label, minor }) => (
        <p key={accountId} className="caution">
          {label} did not pay for want of money. <TopUp accountId={accountId} missingMinor={minor} />
        </p>
      ))}
      {isAsking && <p className="soft">Asking the registrars what it costs now…</p>}
      {differing > 0 && !isBegun && (
        <p className="caution">
          {differing === 1 ? 'One price differs' : `${differing} prices differ`} from the price list. What the registrar
          asks now counts.
        </p>
      )}
      {/* Until something was sent the names stand in the table above, with what the registrar asks beside them. */}
      {(isBegun || count('refused') > 0) && (
        <LinkedTable items={items} past={past} isBegun={isBegun} onLeave={(nameId) => void run.leave(nameId)} />
      )}
      <Actions>
        {startable.length > 0 && !isUnderWay && (
          <Button data-kind="primary" isDisabled={isAsking} onPress={() => setConfirming(true)}>
            {isBegun || count('refused') > 0 ? 'Try again' : verb} {namesWords(startable.length)}
            {isAsking ? ': asking for the prices' : ` for ${amountsWords(costs)}`}…
          </Button>
        )}
        {!isUnderWay && !isBegun && (
          <Button isDisabled={isAsking} onPress={() => void run.askPrices()}>
            Ask for prices again
          </Button>
        )}
        {!isUnderWay && isBegun && <Button onPress={() => void run.finish()}>Close this run</Button>}
        {isUnderWay && <Button onPress={() => void run.stop()}>Stop what is not done</Button>}
      </Actions>
      {count('report refused') > 0 && !isUnderWay && <RefusedReport run={run} reports={reports} />}
      <StartDialog
        run={run}
        quote={quote}
        reports={reports}
        isOpen={isConfirming}
        onClose={() => setConfirming(false)}
      />
    </Section>
  );
}

function RefusedReport({ run, reports }: { run: LinkedRunState; reports: readonly NamedReport[] }) {
  const { draft, setDraft } = run;
  return (
    <Section aria-label="The report was refused">
      <h2>The report was refused</h2>
      <p>
        The restore is paid. Without a report that the registrar takes, the name falls back into redemption:{' '}
        {run.items.find(({ state }) => state.state === 'report refused')?.state.problem}
      </p>
      <ReportForm reports={reports} draft={draft} onChange={setDraft} />
      <Actions>
        <Button data-kind="primary" isDisabled={!isCertified(draft)} onPress={() => void run.reportAgain()}>
          {isCertified(draft) ? 'Send the report again' : 'Certify the report to send it again'}
        </Button>
      </Actions>
    </Section>
  );
}

interface StartDialogProps {
  readonly run: LinkedRunState;
  readonly quote: LinkedRunProps['quote'];
  readonly reports: readonly NamedReport[];
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

/** The one confirmation: what will be taken where, and what happens otherwise. */
function StartDialog({ run, quote, reports, isOpen, onClose }: StartDialogProps) {
  const { startable, startableIds, costs, isRestore, draft, setDraft } = run;
  const { verb, noun } = VERBS[quote.action];
  const accounts = quote.accounts.map(({ account }) => account.label).join(', ');
  const isReady = !isRestore || isCertified(draft);
  const start = () => {
    onClose();
    void run.start();
  };
  return (
    <Dialog title={`${verb} ${namesWords(startable.length)}`} isOpen={isOpen} onClose={onClose}>
      <p>
        {amountsWords(costs)} will be taken at {accounts}. <FirstEnd items={startable} /> {noun} cannot be refunded.{' '}
        <Otherwise nameIds={startableIds} />
      </p>
      {isRestore && <ReportForm reports={reports} draft={draft} onChange={setDraft} />}
      <Actions>
        <Button data-kind="primary" isDisabled={!isReady} onPress={start}>
          {verb} for {amountsWords(costs)}
        </Button>
        <Button onPress={onClose}>Cancel</Button>
        {!isReady && <span className="soft">Certify the report first.</span>}
      </Actions>
    </Dialog>
  );
}

function FirstEnd({ items }: { items: readonly LinkedItem[] }) {
  const { style } = useLedger();
  const one = items[0]?.item;
  if (!one?.newEnd) return null;
  const end = termEndWords(one.newEnd, style);
  return items.length === 1
    ? `${one.unicode} will then run to ${end}.`
    : `Each will run to the new end shown in the list; ${one.unicode} to ${end}.`;
}
