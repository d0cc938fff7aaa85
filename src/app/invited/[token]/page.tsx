import type { Metadata } from 'next';
import { isRefusal } from '@/core/refusal';
import { Answer, Head } from '@/ui/text/Sheet';
import { deps } from '@/usecases/deps';
import { invited } from '@/usecases/people/invitations';
import { Doorway } from '../../acts/signIn/Doorway';
import { InvitedScreen } from './InvitedScreen';

export const metadata: Metadata = { title: 'Invitation' };

export default async function InvitedPage({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const member = await invited(deps(), token);
  if (!isRefusal(member)) return <InvitedScreen token={token} name={member.name} role={member.role} />;
  return (
    <Doorway>
      <Head>
        <Answer>{member.message}</Answer>
      </Head>
    </Doorway>
  );
}
