import type { Metadata } from 'next';
import { isRefusal } from '@/core/refusal';
import { ButtonLink } from '@/ui/controls/Button';
import { Empty } from '@/ui/text/States';
import { deps } from '@/usecases/deps';
import { recordHistory } from '@/usecases/records/records';
import { lookUp } from '@/usecases/records/watch';
import { textIn } from '../../http/params';
import { LookUpScreen } from './LookUpScreen';

type NameParams = { params: Promise<{ name: string }> };

export async function generateMetadata({ params }: NameParams): Promise<Metadata> {
  return { title: textIn((await params).name) };
}

export default async function LookUpPage({ params }: NameParams) {
  const found = await lookUp(deps(), textIn((await params).name));
  if (isRefusal(found))
    return (
      <Empty title={found.message} text="Write a name like kelpkiln.com.">
        <ButtonLink href="/record">Registration record</ButtonLink>
      </Empty>
    );
  return <LookUpScreen found={found} history={await recordHistory(deps(), found.ascii)} />;
}
