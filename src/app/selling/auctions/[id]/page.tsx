import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { auctionView } from '@/usecases/selling/auctions';
import { rowIdIn } from '../../../http/params';
import { AuctionScreen } from './AuctionScreen';

export const metadata: Metadata = { title: 'An auction' };

export default async function AuctionPage({ params }: { params: Promise<{ id: string }> }) {
  const found = await auctionView(deps(), rowIdIn((await params).id));
  if (!found)
    return (
      <Empty title="This auction is not there." text="It may belong to a name that was deleted for a refund.">
        <ButtonLink href="/selling">Selling</ButtonLink>
      </Empty>
    );
  return <AuctionScreen view={found} />;
}
