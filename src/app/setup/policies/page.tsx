import type { Metadata } from 'next';
import { deps } from '@/usecases/deps';
import { policies } from '@/usecases/policies/policies';
import { PoliciesScreen } from './PoliciesScreen';

export const metadata: Metadata = { title: 'Policies' };

export default async function PoliciesPage() {
  return <PoliciesScreen {...(await policies(deps()))} />;
}
