'use client';
import Link from 'next/link';
import type { TodayGroup } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import {
  causeWords,
  daysLeft,
  daysToDeadline,
  daysWords,
  deadlineFigures,
  outlookWords,
  untilWords,
} from '@/ui/text/words';
import { Stalled } from '../acts/switch/Stalled';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView } from '../frame/views';

interface TodayActs {
  readonly isOpen: (row: RowView) => boolean;
  readonly onRenew: (row: RowView) => void;
  readonly onRestore: (row: RowView) => void;
  readonly onSwitch: (row: RowView) => void;
  readonly onSeen: (row: RowView) => void;
  readonly onMailConfirmed: (row: RowView) => void;
}

/** The names of one group, each with its date, its amounts, and what mends it. */
export function TodayTable({
  group,
  label,
  rows,
  ...acts
}: { group: TodayGroup; label: string; rows: readonly RowView[] } & TodayActs) {
  const { meta } = useLedger();
  const forMail = group === 'mail to confirm';
  return (
    <Wide>
      <Ruled aria-label={label}>
        <thead>
          <tr>
            <th>Name</th>
            <th>Account</th>
            <th>If nothing is done</th>
            <th className="figure">{forMail ? 'days left' : 'days to deadline'}</th>
            <th className="figure">now → then</th>
            <th>
              <span className="visually-hidden">Act</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name.id}>
              <td>
                <Link href={namePage(row.name.ascii)} className="name">
                  {row.name.unicode}
                </Link>
                {row.name.neverLost && <span className="soft"> never to be lost</span>}
              </td>
              <td>{meta?.rules.accounts.find((account) => account.id === row.name.accountId)?.label}</td>
              {forMail ? (
                <MailCells row={row} onConfirmed={() => acts.onMailConfirmed(row)} />
              ) : (
                <DeadlineCells row={row} acts={acts} />
              )}
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}

/** What the next deadline is, when, what it costs, and what mends it. */
function DeadlineCells({ row, acts }: { row: RowView; acts: TodayActs }) {
  const { style, today, homeCurrency } = useLedger();
  const name = row.name.unicode;
  const renewable = row.phase === 'term' || row.phase === 'refundable' || row.phase === 'late';
  return (
    <>
      <td>
        {outlookWords(row.outlook, style)}
        {row.outlook.kind === 'charge fails' && row.outlook.charge.cause && (
          <span className="soft">, {causeWords(row.outlook.charge.cause)}</span>
        )}
        <Stalled row={row} />
      </td>
      <td className="figure">{row.deadline ? daysWords(daysToDeadline(row.deadline, today, style)) : ''}</td>
      <td className="figure">{deadlineFigures(row.deadline, homeCurrency)}</td>
      <td className="figure">
        {renewable && row.outlook.kind !== 'charged' && (
          <Button data-kind="plain" onPress={() => acts.onRenew(row)} aria-label={`Renew ${name}`}>
            Renew…
          </Button>
        )}
        {row.phase === 'redemption' && (
          <Button data-kind="plain" onPress={() => acts.onRestore(row)} aria-label={`Restore ${name}`}>
            Restore…
          </Button>
        )}
        {row.phase === 'term' && (
          <Button data-kind="plain" onPress={() => acts.onSwitch(row)} aria-label={`Auto-renew of ${name}`}>
            Auto-renew…
          </Button>
        )}
        {acts.isOpen(row) && (
          <Button data-kind="plain" onPress={() => acts.onSeen(row)} aria-label={`Mark ${name} as seen`}>
            Mark as seen
          </Button>
        )}
      </td>
    </>
  );
}

/** By when the holder has to follow the link in the registrar's mail. */
function MailCells({ row, onConfirmed }: { row: RowView; onConfirmed: () => void }) {
  const { style, today } = useLedger();
  const by = row.name.confirmMailBy;
  if (by === null) return null;
  return (
    <>
      <td>
        {by > today ? (
          `works until ${untilWords(by, style)}`
        ) : (
          <span className="caution">on hold until it is confirmed</span>
        )}
        <span className="soft">, follow the link in the registrar’s mail</span>
      </td>
      <td className="figure">{daysWords(daysLeft(by, today, style))}</td>
      <td />
      <td className="figure">
        <Button data-kind="plain" onPress={onConfirmed} aria-label={`The mail of ${row.name.unicode} is confirmed`}>
          It is confirmed
        </Button>
      </td>
    </>
  );
}
