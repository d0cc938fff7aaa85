'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import type { MoveTurn } from '@/core/moving';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { namesWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useBusy } from '../acts/useBusy';
import { useLedgerChange } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import { ArrivedButton } from './ArrivedDialog';
import { carryOnAction } from './actions';
import { TURN_WORDS } from './moveWords';
import { TellAll } from './TellAll';
import { TransfersTable } from './TransfersTable';

const TURNS: readonly MoveTurn[] = ['you', 'buyer', 'registry', 'program', 'registrar', 'holder', 'nobody'];

/** While something goes on by itself the page is read anew so often. */
const AGAIN_MS = 3000;

/** Names on their way to another registrar, by whose turn it is. */
export function TransfersScreen({ transfers }: { transfers: readonly TransferView[] }) {
  const router = useRouter();
  const [isBusy, during] = useBusy();
  const open = transfers.filter(({ turn }) => turn !== 'nobody');
  const waiting = open.filter(({ turn }) => turn === 'you').length;
  useTitle(
    'Transfers',
    open.length === 0
      ? 'none under way'
      : `${namesWords(open.length)} under way${waiting > 0 ? `, ${waiting} wait for you` : ''}`,
  );
  useLedgerChange(router.refresh);
  const isGoingOn = open.some(({ turn, problem }) => turn === 'program' && problem === null);
  useEffect(() => {
    if (!isGoingOn) return;
    const timer = setInterval(router.refresh, AGAIN_MS);
    return () => clearInterval(timer);
  }, [isGoingOn, router]);
  const goOn = async () => {
    const moved = await during(carryOnAction());
    report({ text: moved === 0 ? 'Nothing could go on yet.' : `${namesWords(moved)} went on.` });
    router.refresh();
  };
  if (transfers.length === 0)
    return (
      <Empty
        title="No name is on its way."
        text="Plan which names to move where: each is weighed over the years against staying where it is."
      >
        <ButtonLink href="/transfers/plan" data-kind="primary">
          Plan transfers
        </ButtonLink>
        <ArrivedButton />
      </Empty>
    );
  return (
    <Page>
      <Head>
        <Answer>
          {open.length === 0
            ? 'No name is on its way now.'
            : `${countOf(open.length, 'name is', 'names are')} on ${open.length === 1 ? 'its' : 'their'} way`}
          {open.length > 0 && (waiting > 0 ? `, and ${countOf(waiting, 'waits', 'wait').toLowerCase()} for you.` : '.')}
        </Answer>
      </Head>
      <Actions>
        <ButtonLink href="/transfers/plan">Plan transfers</ButtonLink>
        <Button isDisabled={isBusy} onPress={() => void goOn()}>
          Ask the registrars now
        </Button>
        <ArrivedButton />
      </Actions>
      {TURNS.map((turn) => {
        const rows = transfers.filter((one) => one.turn === turn);
        if (rows.length === 0) return null;
        return (
          <Section key={turn} aria-label={TURN_WORDS[turn]}>
            <h2>
              {TURN_WORDS[turn]}: {namesWords(rows.length)}
            </h2>
            {turn === 'you' && <TellAll transfers={rows} />}
            <TransfersTable transfers={rows} label={TURN_WORDS[turn]} />
          </Section>
        );
      })}
    </Page>
  );
}
