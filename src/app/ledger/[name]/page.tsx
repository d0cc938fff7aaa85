import type { Metadata } from 'next';
import { ENTRY_KINDS } from '@/core/journal';
import { isRefusal } from '@/core/refusal';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { mails } from '@/usecases/mails/mails';
import { transferOfName } from '@/usecases/moving/underWay';
import { nameDetail } from '@/usecases/names/detail';
import { ledgerChoices } from '@/usecases/names/ledger';
import { newestRecords } from '@/usecases/records/records';
import { lapseOf } from '@/usecases/rescue/lapse';
import { textIn } from '../../http/params';
import { NameScreen } from './NameScreen';

/** Mails that speak of a name, the newest of them. */
const MOST_MAILS = 12;

type NameParams = { params: Promise<{ name: string }> };

export async function generateMetadata({ params }: NameParams): Promise<Metadata> {
  return { title: textIn((await params).name) };
}

export default async function NamePage({ params }: NameParams) {
  const written = textIn((await params).name);
  const detail = await nameDetail(deps(), written);
  if (isRefusal(detail)) {
    return (
      <Empty title={detail.message} text="A name is in the ledger once it has been brought in.">
        <ButtonLink href="/ledger/add">Add names</ButtonLink>
      </Empty>
    );
  }
  const [{ tags }, lapse, records, transfer, speaking] = await Promise.all([
    ledgerChoices(deps()),
    lapseOf(deps(), detail.id),
    newestRecords(deps(), detail.ascii),
    transferOfName(deps(), detail.id),
    mails(deps(), { nameId: detail.id, limit: MOST_MAILS }),
  ]);
  return (
    <NameScreen
      detail={detail}
      tags={tags}
      kinds={ENTRY_KINDS}
      lapse={lapse}
      records={records}
      transfer={transfer}
      mails={speaking}
    />
  );
}
