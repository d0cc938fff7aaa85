import type { Metadata } from 'next';
import { AllNamesScreen } from './AllNamesScreen';

export const metadata: Metadata = { title: 'Which of mine should I drop?' };

export default function AllNamesPage() {
  return <AllNamesScreen />;
}
