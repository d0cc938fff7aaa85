import type { Metadata } from 'next';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { mail } from '@/usecases/mails/mails';
import { rowIdIn } from '../../../http/params';
import { MailScreen } from './MailScreen';

export const metadata: Metadata = { title: 'Mail' };

export default async function MailPage({ params }: { params: Promise<{ id: string }> }) {
  const found = await mail(deps(), rowIdIn((await params).id));
  if (!found)
    return (
      <Empty title="There is no such mail." text="It may have been emptied with the ledger.">
        <ButtonLink href="/record/mails">All mails</ButtonLink>
      </Empty>
    );
  const { proposals, ...rest } = found;
  return <MailScreen mail={rest} proposals={[...proposals]} />;
}
