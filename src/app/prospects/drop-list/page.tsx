import type { Metadata } from 'next';
import { DropListScreen } from './DropListScreen';

export const metadata: Metadata = { title: 'Drop list' };

export default function DropListPage() {
  return <DropListScreen />;
}
