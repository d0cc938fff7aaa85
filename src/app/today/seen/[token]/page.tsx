import type { Metadata } from 'next';
import Link from 'next/link';
import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { seen } from '@/usecases/reminders/remind';
import { SeenScreen } from './SeenScreen';

export const metadata: Metadata = { title: 'Seen' };

/** Where the link in a reminder leads: it takes note that somebody has seen it. */
export default async function SeenPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const name = await seen(deps(), token);
  return (
    <SeenScreen>
      {isRefusal(name) ? (
        <p>{name.message}</p>
      ) : (
        <p>
          Noted: you have seen what was told of <Link href={`/ledger/${encodeURIComponent(name)}`}>{name}</Link>. It is
          not told again unless its next date moves.
        </p>
      )}
      <p>
        <Link href="/today">Everything that needs a decision</Link>
      </p>
    </SeenScreen>
  );
}
