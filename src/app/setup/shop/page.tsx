import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { officeSettings } from '@/usecases/settings';
import { certificates } from '@/usecases/shop/certificates';
import { blockedSenders } from '@/usecases/shop/settings';
import { ShopScreen } from './ShopScreen';

export const metadata: Metadata = { title: 'Shop window' };

export default async function ShopPage() {
  const [settings, blocked, held] = await Promise.all([
    officeSettings(deps()),
    blockedSenders(deps()),
    certificates(deps()),
  ]);
  const { shop, homeCurrency, mail } = settings;
  return <ShopScreen shop={shop} home={homeCurrency} hasMail={mail !== null} blocked={blocked} held={held} />;
}
