import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Asked and waited for' };

export default function WaitingPage() {
  return null;
}
