import type { Metadata } from 'next';
import { OutlookScreen } from './OutlookScreen';

export const metadata: Metadata = { title: 'Prospects' };

export default function ProspectsPage() {
  return <OutlookScreen />;
}
