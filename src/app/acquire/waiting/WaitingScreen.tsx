'use client';
import { Page } from '@/ui/text/Sheet';
import type { ApproachRow } from '@/usecases/acquiring/approaches';
import type { ComingFree } from '@/usecases/acquiring/comingFree';
import type { ReleaseOrderRow } from '@/usecases/acquiring/releaseOrders';
import { useTitle } from '../../frame/PageTitle';
import { AskForm } from './AskForm';
import { ListsPart } from './ListsPart';
import { LostPart } from './LostPart';
import { OrderForm } from './OrderForm';
import { OrdersPart } from './OrdersPart';
import { ThreadPart } from './ThreadPart';

interface WaitingScreenProps {
  readonly threads: readonly ApproachRow[];
  readonly orders: readonly ReleaseOrderRow[];
  readonly lists: ComingFree;
  /** A name whose holder is to be asked, and one that is to be ordered, where one comes from its page. */
  readonly ask: string;
  readonly order: string;
}

/** Names of others: holders that are asked, names that are waited for, lists of what is about to come free, and what was lost. */
export function WaitingScreen({ threads, orders, lists, ask, order }: WaitingScreenProps) {
  const open = threads.filter(({ state }) => state !== 'arrived' && state !== 'ended');
  const waiting = orders.filter(({ state }) => state === 'waiting' || state === 'trying').length;
  useTitle('Acquire', `${open.length} asked for, ${waiting} waited for`);
  return (
    <Page>
      {open.map((thread) => (
        <ThreadPart key={thread.id} thread={thread} />
      ))}
      <AskForm key={`ask ${ask}`} name={ask} />
      {orders.length > 0 && <OrdersPart orders={orders} />}
      <OrderForm key={`order ${order}`} name={order} />
      <ListsPart lists={lists} />
      {lists.lost.length > 0 && <LostPart lost={lists.lost} />}
    </Page>
  );
}
