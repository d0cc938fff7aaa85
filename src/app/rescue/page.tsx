import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { dropping } from '@/usecases/rescue/drop';
import { officeSettings } from '@/usecases/settings';
import { RescueScreen } from './RescueScreen';

export const metadata: Metadata = { title: 'Rescue' };

export default async function RescuePage() {
  const [{ saleOdds }, going] = await Promise.all([officeSettings(deps()), dropping(deps())]);
  return <RescueScreen odds={saleOdds} going={going} />;
}
