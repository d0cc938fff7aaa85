'use client';
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { Link } from '@/ui/controls/Link';
import type { Health, JobResult } from '@/usecases/health/health';
import { useLedger } from './LedgerProvider';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  padding: 6px 18px;
  border-bottom: 1px solid var(--caution);
  background: var(--caution-pale);
  & p { margin: 0; }
  @media print { display: none; }
`;

/** How often the parts are looked at, while the window is in sight. */
const LOOK_EVERY_MS = 10_000;
const LOOK_AGAIN_MS = 3000;

const DOWN_WORDS: Readonly<Record<Health['parts'][number]['name'], string>> = {
  database: 'The database does not answer: nothing can be read or changed until it is back.',
  jobs: 'What happens by itself stands still: nothing is polled, renewed, followed or reminded of.',
  practice: 'The practice world does not answer: the demo’s registrars and marketplaces are away.',
};

/** On which place a job's failure is told, and what it is that failed. */
const JOB_WORDS: Readonly<Record<string, { readonly place: RegExp; readonly text: string }>> = {
  'ask-for-names': { place: /^\/acquire/, text: 'Names could not be asked for' },
  'carry-on-registrations': { place: /^\/acquire/, text: 'Registrations could not be carried on' },
  'carry-on-releases': { place: /^\/acquire/, text: 'Orders at release could not be carried on' },
  'carry-on-transfers': { place: /^\/transfers/, text: 'Transfers could not be carried on' },
  'carry-on-runs': { place: /^\/(renewals|rescue)/, text: 'Runs could not be carried on' },
  'carry-out-switches': { place: /^\/(ledger|renewals)/, text: 'Settings could not be switched at registrars' },
  'poll-accounts': { place: /^\/(today|setup\/accounts)/, text: 'Registrars could not be asked for messages' },
  'queue-record-checks': { place: /^\/record/, text: 'Names could not be put in line to be checked' },
  'check-records': { place: /^\/record/, text: 'Records could not be checked' },
  'follow-selling': { place: /^\/selling/, text: 'Selling could not be followed' },
  'send-reminders': { place: /^\/(today|setup\/mail)/, text: 'Reminders could not be mailed' },
  'read-balances': { place: /^\/(renewals|setup\/accounts)/, text: 'Balances could not be read' },
  'read-rates': { place: /^\/(prices|setup\/marketplaces)/, text: 'Rates between currencies could not be read' },
  'end-cut-imports': { place: /^\/ledger\/add/, text: 'Lists that were cut off could not be ended' },
  'drop-old-imports': { place: /^\/ledger\/add/, text: 'Old lists could not be deleted' },
};

function jobWords({ job, failedAgoSeconds, problem }: JobResult): string {
  const minutes = Math.round((failedAgoSeconds ?? 0) / 60);
  const ago =
    minutes < 2 ? 'just now' : minutes < 120 ? `${minutes} minutes ago` : `${Math.round(minutes / 60)} hours ago`;
  return `${JOB_WORDS[job]?.text ?? job} (${ago}): ${problem ?? ''}`;
}

/** Says quietly what is down or fails on this place, and goes by itself when all is well again. */
export function TroubleBar() {
  const path = usePathname();
  const { reload } = useLedger();
  const [health, setHealth] = useState<Health | 'away' | null>(null);
  const isDown = health === 'away' || (health !== null && !health.isUp);

  useEffect(() => {
    let wasDown = false;
    let timer: ReturnType<typeof setTimeout>;
    let left = false;
    const look = async () => {
      if (document.visibilityState === 'visible') {
        const answer = await fetch('/api/v1/health', { cache: 'no-store' }).catch(() => null);
        const now = ((await answer?.json().catch(() => null)) as Health | null | undefined) ?? 'away';
        if (left) return;
        const down = now === 'away' || !now.isUp;
        setHealth(now);
        // What was missed meanwhile is fetched.
        if (wasDown && !down) void reload();
        wasDown = down;
      }
      timer = setTimeout(look, wasDown ? LOOK_AGAIN_MS : LOOK_EVERY_MS);
    };
    timer = setTimeout(look, LOOK_AGAIN_MS);
    return () => {
      left = true;
      clearTimeout(timer);
    };
  }, [reload]);

  const lines =
    health === 'away'
      ? ['The program does not answer. What is on screen is as it was; it goes on by itself when the program is back.']
      : health === null
        ? []
        : [
            ...health.parts.flatMap(({ name, isUp }) => (isUp === false ? DOWN_WORDS[name] : [])),
            ...health.failedJobs.filter(({ job }) => JOB_WORDS[job]?.place.test(path)).map(jobWords),
          ];
  return (
    <div role="status" aria-live="polite">
      {lines.length > 0 && (
        <Bar>
          {lines.map((line) => (
            <p key={line}>{line}</p>
          ))}
          {isDown && health !== 'away' && <p className="soft">It is started again.</p>}
          {health !== 'away' && <Link href="/setup/log">See the log</Link>}
        </Bar>
      )}
    </div>
  );
}
