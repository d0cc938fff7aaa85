import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { negotiation } from '@/usecases/selling/offers';
import { rowIdIn } from '../../../http/params';
import { OfferScreen } from './OfferScreen';

export const metadata: Metadata = { title: 'An offer' };

export default async function OfferPage({ params }: { params: Promise<{ id: string }> }) {
  const found = await negotiation(deps(), rowIdIn((await params).id));
  if (!found)
    return (
      <Empty title="This thread is not there." text="It may belong to a name that was deleted for a refund.">
        <ButtonLink href="/selling">Selling</ButtonLink>
      </Empty>
    );
  return <OfferScreen about={found} />;
}
