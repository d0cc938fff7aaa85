import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { deps } from '@/usecases/deps';
import { personOf } from '@/usecases/people/identify';
import { sessionsOf } from '@/usecases/people/sessions';
import { ownWays } from '@/usecases/people/ways';
import { fromHere } from '../http/signedIn';
import { YouScreen } from './YouScreen';

export const metadata: Metadata = { title: 'Your sign-in' };

export default async function YouPage() {
  const own = deps();
  const person = personOf(own.who);
  if (!person) redirect('/setup/people');
  const [ways, sessions] = await Promise.all([ownWays(own), sessionsOf(own, person.id)]);
  if (!ways) redirect('/sign-in');
  return (
    <YouScreen
      name={person.name}
      role={person.role}
      ways={ways}
      sessions={sessions}
      session={fromHere().session?.id ?? 0}
    />
  );
}
