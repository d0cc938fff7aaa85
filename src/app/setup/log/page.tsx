import type { Metadata } from 'next';
import { lastTroubles } from '@/usecases/health/troubles';
import { LogScreen } from './LogScreen';

export const metadata: Metadata = { title: 'Log' };

export default async function LogPage() {
  const { folder, troubles } = await lastTroubles();
  return <LogScreen folder={folder} troubles={troubles} />;
}
