import type { Metadata } from 'next';
import { holderAddresses } from '@/usecases/acquiring/addresses';
import { registrations } from '@/usecases/acquiring/register';
import { deps } from '@/usecases/deps';
import { RegisteredScreen } from './RegisteredScreen';

export const metadata: Metadata = { title: 'Registering' };

export default async function RegisteredPage() {
  const [{ open, settled }, addresses] = await Promise.all([registrations(deps()), holderAddresses(deps())]);
  return <RegisteredScreen open={open} settled={settled} addresses={addresses} />;
}
