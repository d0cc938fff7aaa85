'use client';
import { formatDay, parseDay } from '@/core/time';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { MailRow } from '@/usecases/mails/mails';
import type { HistoryRow } from '@/usecases/names/detail';
import { useLedger } from '../../frame/LedgerProvider';

const WORDS: Readonly<Record<string, string>> = {
  account_id: 'account',
  registered: 'registered',
  term_end: 'term ends',
  setting: 'auto-renew',
  standing: 'standing',
  requested: 'requested',
  observed: 'seen as',
  purpose: 'purpose',
  never_lost: 'never to be lost',
  lock: 'lock',
  privacy: 'privacy',
  name_servers: 'name servers',
  tags: 'tags',
  notes: 'notes',
  asking_minor: 'asking',
  gone_at: 'left its account',
};

const mailOf = (mails: readonly MailRow[], batchId: number) =>
  mails.find(({ names }) => names.some((name) => name.batchId === batchId));

/** What a change rests on; a mail can be read. */
function Evidence({ text, mail }: { text: string; mail: MailRow | undefined }) {
  return mail ? <Link href={`/record/mails/${mail.id}`}>{text}</Link> : text;
}

/** Everything that changed on a name, and when, newest first. */
export function History({
  history,
  currency,
  mails,
}: {
  history: readonly HistoryRow[];
  currency: string;
  /** Mails that speak of the name: some are the evidence of a line. */
  mails: readonly MailRow[];
}) {
  const { style, meta } = useLedger();
  const account = (id: unknown) => meta?.rules.accounts.find((a) => a.id === id)?.label ?? 'another account';
  const value = (key: string, raw: unknown): string => {
    if (raw === null || raw === undefined || raw === '') return 'nothing';
    if (key === 'account_id') return account(raw);
    if (key === 'asking_minor') return formatAmount({ minor: Number(raw), currency }, true);
    if (typeof raw === 'boolean') return raw ? 'yes' : 'no';
    if (Array.isArray(raw)) return raw.join(', ') || 'nothing';
    const day = /^\d{4}-\d{2}-\d{2}T/.test(String(raw)) ? parseDay(String(raw).slice(0, 10)) : null;
    return day ? formatDay(day) : String(raw);
  };
  return (
    <Section aria-label="History">
      <h2>History</h2>
      {mails.length > 0 && (
        <p>
          {mails.length === 1 ? 'One mail speaks' : `${mails.length} mails speak`} of it:{' '}
          {mails.map((mail, place) => (
            <span key={mail.id}>
              {place > 0 && ', '}
              <Link href={`/record/mails/${mail.id}`}>{mail.subject || 'without a subject'}</Link>
            </span>
          ))}
        </p>
      )}
      <Wide>
        <Ruled>
          <tbody>
            {history.map((line) => (
              <tr key={`${line.batchId}`} data-off={line.undone}>
                <td>{dayWords(line.at, style)}</td>
                <td>
                  {line.summary}
                  {line.evidence && (
                    <span className="soft">
                      {' '}
                      (<Evidence text={line.evidence} mail={mailOf(mails, line.batchId)} />)
                    </span>
                  )}
                  {line.by === 'program' && <span className="soft">, by the program</span>}
                  {line.person !== null && <span className="soft">, by {line.person}</span>}
                  {line.undone && <span className="soft">, taken back since</span>}
                </td>
                <td>
                  {Object.keys(line.after)
                    .filter((key) => key in WORDS && (line.before !== null || says(line.after[key])))
                    .map((key) => (
                      <div key={key}>
                        <span className="soft">{WORDS[key]}</span>{' '}
                        {line.before ? `${value(key, line.before[key])} → ` : ''}
                        {value(key, line.after[key])}
                      </div>
                    ))}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

/** Whether a value that a name came in with is more than what is usual. */
function says(value: unknown): boolean {
  return value !== false && value !== '' && value !== 'unknown' && !(Array.isArray(value) && value.length === 0);
}
