'use client';
import { useRouter } from 'next/navigation';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, namesWords } from '@/ui/text/words';
import type { WatchRow } from '@/usecases/records/watch';
import { toldRefused } from '../acts/toldRefused';
import { useLedger } from '../frame/LedgerProvider';
import { unwatchAction } from './actions';

/** Names of others that are watched: how they stand, and from when to when they may come free. */
export function WatchPart({ watched }: { watched: readonly WatchRow[] }) {
  const router = useRouter();
  const { style } = useLedger();
  if (watched.length === 0) return null;
  const unwatch = async (ascii: string) => {
    if (!toldRefused(await unwatchAction(ascii))) router.refresh();
  };
  return (
    <Section aria-label="Watched">
      <h2>Watched: {namesWords(watched.length)}</h2>
      <Wide>
        <Ruled aria-label="Watched names">
          <thead>
            <tr>
              <th>Name</th>
              <th>Status</th>
              <th>May become available</th>
              <th>What changed</th>
              <th>Checked</th>
              <th>
                <span className="visually-hidden">Act</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {watched.map((watch) => (
              <tr key={watch.ascii}>
                <td>
                  <Link href={`/record/${encodeURIComponent(watch.ascii)}`} className="name">
                    {watch.unicode}
                  </Link>
                </td>
                <td>{watch.standing}</td>
                <td>
                  {watch.isFree
                    ? 'now'
                    : watch.earliest && watch.latest
                      ? `${dayWords(watch.earliest, style)} to ${dayWords(watch.latest, style)}`
                      : 'not known'}
                </td>
                <td>{watch.changedAt ? `${dayWords(watch.changedAt, style)}: ${watch.change}` : ''}</td>
                <td>{watch.checkedAt ? dayWords(watch.checkedAt, style) : 'not yet'}</td>
                <td className="figure">
                  <Button
                    data-kind="plain"
                    onPress={() => void unwatch(watch.ascii)}
                    aria-label={`Watch ${watch.unicode} no more`}
                  >
                    Watch no more
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}
