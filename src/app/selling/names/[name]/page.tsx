import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { sellingOf } from '@/usecases/selling/report';
import { windowShown } from '@/usecases/shop/shows';
import { visitsOf } from '@/usecases/shop/visits';
import { textIn } from '../../../http/params';
import { NameSellingScreen } from './NameSellingScreen';

type NameParams = { params: Promise<{ name: string }> };

export async function generateMetadata({ params }: NameParams): Promise<Metadata> {
  return { title: `Selling ${textIn((await params).name)}` };
}

export default async function NameSellingPage({ params }: NameParams) {
  const selling = await sellingOf(deps(), textIn((await params).name));
  if (!selling)
    return (
      <Empty title="This name is not in the ledger." text="It may have been renamed or refunded.">
        <ButtonLink href="/selling">Selling</ButtonLink>
      </Empty>
    );
  const [shown, visits] = await Promise.all([windowShown(deps(), selling.nameId), visitsOf(deps(), selling.nameId)]);
  return <NameSellingScreen selling={selling} seen={{ ...shown, visits }} />;
}
