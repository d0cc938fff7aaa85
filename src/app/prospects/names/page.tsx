import type { Metadata } from 'next';
import { NamesScreen } from './NamesScreen';

export const metadata: Metadata = { title: 'Names worth another year' };

export default function NamesPage() {
  return <NamesScreen />;
}
