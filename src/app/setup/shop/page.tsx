import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { blockedSenders } from '@/usecases/shop/settings';
import { ShopScreen } from './ShopScreen';

export const metadata: Metadata = { title: 'Shop window' };

export default async function ShopPage() {
  const [settings, blocked] = await Promise.all([officeSettings(deps()), blockedSenders(deps())]);
  return (
    <ShopScreen shop={settings.shop} home={settings.homeCurrency} hasMail={settings.mail !== null} blocked={blocked} />
  );
}
