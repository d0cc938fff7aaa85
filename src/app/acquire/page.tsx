import type { Metadata } from 'next';
import { offeredEndings } from '@/usecases/acquiring/endings';
import { ideaSets } from '@/usecases/acquiring/ideas';
import { deps } from '@/usecases/deps';
import { AcquireScreen } from './AcquireScreen';

export const metadata: Metadata = { title: 'Acquire' };

export default async function AcquirePage({ searchParams }: { searchParams: Promise<{ set?: string }> }) {
  const [sets, endings] = await Promise.all([ideaSets(deps()), offeredEndings(deps())]);
  const { set: asked } = await searchParams;
  // One comes back to the ideas that were kept last.
  const set = asked === 'new' ? null : (sets.find(({ id }) => String(id) === asked) ?? sets[0] ?? null);
  return <AcquireScreen key={set?.id ?? 'new'} sets={sets} set={set} endings={endings} />;
}
