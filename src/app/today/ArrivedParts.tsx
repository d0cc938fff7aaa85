'use client';
import { Link } from '@/ui/controls/Link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { MessageRow } from '@/usecases/links/messages';
import type { WatchRow } from '@/usecases/records/watch';
import { useLedger } from '../frame/LedgerProvider';

/** Watched names that are available, become so soon, or changed since yesterday. */
export function WatchedPart({ watched }: { watched: readonly WatchRow[] }) {
  const { style } = useLedger();
  if (watched.length === 0) return null;
  return (
    <Section aria-label="Watched names">
      <h2>Watched names</h2>
      <Ruled aria-label="Watched names">
        <tbody>
          {watched.map((watch) => (
            <tr key={watch.ascii}>
              <td>
                <Link href={`/record/${encodeURIComponent(watch.ascii)}`} className="name">
                  {watch.unicode}
                </Link>
              </td>
              <td>
                {watch.isFree
                  ? 'available now'
                  : watch.earliest && watch.latest
                    ? `becomes available ${dayWords(watch.earliest, style)} to ${dayWords(watch.latest, style)}`
                    : watch.standing}
              </td>
              <td className="soft">{watch.changedAt && `${dayWords(watch.changedAt, style)}: ${watch.change}`}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** Mails whose news nobody has taken over or left. */
export function MailsPart({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p>
      <Link href="/record/mails">
        {count === 1 ? 'One mail of a registrar tells' : `${count} mails of registrars tell`} something new
      </Link>
      : take it over, or leave it.
    </p>
  );
}

/** What registrars have told since yesterday. */
export function MessagesPart({ messages }: { messages: readonly MessageRow[] }) {
  const { meta, style } = useLedger();
  if (messages.length === 0) return null;
  return (
    <Section aria-label="Arrived since yesterday">
      <h2>Arrived since yesterday</h2>
      <Ruled aria-label="Arrived since yesterday">
        <tbody>
          {messages.map((message) => (
            <tr key={`${message.accountId} ${message.toldAt} ${message.name} ${message.kind}`}>
              <td>{dayWords(message.toldAt ?? message.receivedAt, style)}</td>
              <td>{meta?.rules.accounts.find((account) => account.id === message.accountId)?.label}</td>
              <td className="name">{message.name}</td>
              <td className={message.kind === 'charge-failed' || message.kind === 'deleted' ? 'caution' : undefined}>
                {message.text}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}
