import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { link } from '@/usecases/links/links';
import { statementOf } from '@/usecases/selling/statement';
import { rowIdIn } from '../../../http/params';
import { SaleScreen } from './SaleScreen';

export const metadata: Metadata = { title: 'A sale' };

export default async function SalePage({ params }: { params: Promise<{ id: string }> }) {
  const own = deps();
  const statement = await statementOf(own, rowIdIn((await params).id));
  if (!statement)
    return (
      <Empty title="This sale is not there." text="See every sale under Sold.">
        <ButtonLink href="/selling/sold">Sold</ButtonLink>
      </Empty>
    );
  return <SaleScreen statement={statement} hasLink={(await link(own, statement.sale.accountId)) !== null} />;
}
