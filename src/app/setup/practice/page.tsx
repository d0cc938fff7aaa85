import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { links } from '@/usecases/links/links';
import { practiceState } from '@/usecases/practice/practice';
import { PracticeScreen } from './PracticeScreen';

export const metadata: Metadata = { title: 'Practice' };

export default async function PracticePage() {
  const [state, linked] = await Promise.all([practiceState(), links(deps())]);
  const registrars = linked.flatMap(({ login }) =>
    login.startsWith('harbour-') ? [login.slice('harbour-'.length)] : [],
  );
  return <PracticeScreen first={state} places={[...registrars, 'records', 'marketplace']} />;
}
