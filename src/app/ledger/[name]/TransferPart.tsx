'use client';
import type { MoveSaving } from '@/core/ledger';
import { groundsAgainst, type MovingFacts, movingCalendar } from '@/core/moving';
import { addDays } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { bestDaySentence, GROUND_WORDS, mendsWords, STAGE_WORDS, savingSentence } from '@/ui/text/movingWords';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useMove } from '../../acts/move/useMove';
import { useDay, useLedger } from '../../frame/LedgerProvider';

/** About as far as the strip above reaches. */
const SHOWN_DAYS = 195;

interface TransferPartProps {
  readonly nameId: number;
  /** The one it is on now. */
  readonly transfer: TransferView | null;
  readonly facts: MovingFacts;
  readonly saving: MoveSaving | null;
}

/** Whether a name can go to another registrar, the best day for it, and what stands against it. */
export function TransferPart({ nameId, transfer, facts, saving }: TransferPartProps) {
  const { meta, style, homeCurrency } = useLedger();
  const labelOf = (id: number) => meta?.rules.accounts.find((one) => one.id === id)?.label ?? '';
  const { day, daysAhead } = useDay();
  const move = useMove();
  const grounds = groundsAgainst(facts, day);
  const isDrawn = movingCalendar(facts, day, addDays(day, SHOWN_DAYS)).some(({ kind }) => kind !== 'cannot');
  return (
    <Section aria-label="Transfer">
      <h2>Transfer</h2>
      <p>{bestDaySentence(facts, day, style)}</p>
      {transfer ? (
        <p>
          On its way from {transfer.from} to {transfer.to}: {STAGE_WORDS[transfer.stage]} since{' '}
          {dayWords(transfer.since, style)}. <Link href="/transfers">To the transfers</Link>
        </p>
      ) : (
        <div>
          <Button isDisabled={daysAhead > 0} onPress={() => move([nameId])}>
            Transfer…
          </Button>
        </div>
      )}
      {saving && <p>{savingSentence(saving, homeCurrency, labelOf)}</p>}
      {facts.policy.holderLockDays > 0 && (
        <p className="soft">
          Change its holder, or the holder’s mail address, after a transfer and not before: registrars may lock it for{' '}
          {facts.policy.holderLockDays} days, unless that is waived before the change.
        </p>
      )}
      {grounds.length > 0 && (
        <Ruled aria-label="What stands against a transfer">
          <tbody>
            {grounds.map((ground) => (
              <tr key={`${ground.kind} ${ground.from}`}>
                <th scope="row">{GROUND_WORDS[ground.kind]}</th>
                <td>{mendsWords(ground, day, style)}</td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
      <p className="soft">
        {facts.recordAt === null
          ? 'No registration record was seen: locks of the registry, pending changes and earlier transfers are not known.'
          : `By the ledger, and the registration record seen ${dayWords(facts.recordAt, style)}.`}
        {facts.registeredAt === null && ' When it was registered is not known either.'}
        {isDrawn && ' Under the strip: a line where it can be transferred, dashes where a year paid for would be lost.'}
      </p>
    </Section>
  );
}
