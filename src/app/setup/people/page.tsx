import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { personOf } from '@/usecases/people/identify';
import { isGuarded, members } from '@/usecases/people/members';
import { officeSettings } from '@/usecases/settings';
import { fromHere } from '../../http/signedIn';
import { PeopleScreen } from './PeopleScreen';

export const metadata: Metadata = { title: 'People' };

export default async function PeoplePage() {
  const own = deps();
  const [rows, guarded, { secondPerson }] = await Promise.all([members(own), isGuarded(own), officeSettings(own)]);
  return (
    <PeopleScreen
      members={rows}
      isGuarded={guarded}
      secondPerson={secondPerson}
      self={personOf(own.who)?.id ?? null}
      origin={fromHere().origin}
    />
  );
}
