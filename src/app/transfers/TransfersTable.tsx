'use client';
import styled from 'styled-components';
import { BEFORE_REQUEST } from '@/core/moving';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { STAGE_WORDS } from '@/ui/text/movingWords';
import { Ruled } from '@/ui/text/Sheet';
import { dayWords, mailWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import { agreeToPriceAction, stopTransferAction } from './actions';
import { CounterOffer } from './CounterOffer';
import { EXIT_WORDS } from './moveWords';
import { StageLine } from './StageLine';
import { TellForm } from './TellForm';
import { ZonePart } from './ZonePart';

const Table = styled(Ruled)`
  & th:nth-child(1) { width: 21%; }
  & th:nth-child(2) { width: 16%; }
  & th:nth-child(3) { width: 22%; }
  & form { max-width: 420px; padding-top: 8px; }
  /* On a telephone each name is a block of its own. */
  @media (max-width: 640px) {
    & thead { display: none; }
    & tr { display: block; padding: 8px 0; border-bottom: 1px solid var(--rule); }
    & td { display: block; padding: 2px 0; border: 0; }
  }
`;

const ToDo = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 10px;
  & > details, & > div:not([role]) { flex: 1 1 100%; }
  & > details[open] { flex-basis: 100%; }
`;

/** Each name with where it goes, how far it has come and since when, and what is to do. */
export function TransfersTable({ transfers, label }: { transfers: readonly TransferView[]; label: string }) {
  return (
    <Table aria-label={label}>
      <thead>
        <tr>
          <th>Name</th>
          <th>From, to</th>
          <th>Stands at</th>
          <th>To do</th>
        </tr>
      </thead>
      <tbody>
        {transfers.map((transfer) => (
          <TransferLine key={transfer.id} transfer={transfer} />
        ))}
      </tbody>
    </Table>
  );
}

function TransferLine({ transfer }: { transfer: TransferView }) {
  const { style, today } = useLedger();
  const {
    ascii,
    unicode,
    from,
    to,
    stage,
    exit,
    since,
    dueAt,
    isOverdue,
    problem,
    person,
    notBefore,
    dependents,
    confirmMailBy,
  } = transfer;
  const isWaiting = stage === 'planned' && notBefore > today;
  return (
    <tr>
      <td>
        <Link href={namePage(ascii)} className="name">
          {unicode}
        </Link>
      </td>
      <td>
        {from} to {to}
      </td>
      <td>
        {STAGE_WORDS[stage]}
        <StageLine stage={stage} />
        {exit && <div>{EXIT_WORDS[exit]}</div>}
        <div className={isOverdue ? 'caution' : 'soft'}>
          {isWaiting ? `not before ${dayWords(notBefore, style)}` : `since ${dayWords(since, style)}`}
          {dueAt !== null &&
            !isWaiting &&
            (isOverdue ? `, later than usual: ${dayWords(dueAt, style)}` : `, usually until ${dayWords(dueAt, style)}`)}
        </div>
      </td>
      <td>
        <ToDo>
          {dependents.length > 0 && (
            <div className="caution">
              Name servers under it move with it. They serve {dependents.slice(0, 5).join(', ')}
              {dependents.length > 5 && ` and ${dependents.length - 5} more`}.
            </div>
          )}
          {confirmMailBy !== null && <div className="caution">{mailWords(confirmMailBy, today, style)}</div>}
          {problem && <div className={exit ? 'soft' : 'caution'}>{problem}</div>}
          {person !== null && <div className="soft">asked for by {person}</div>}
          <TellForm transfer={transfer} />
          <Decide transfer={transfer} />
          {canBeCountered(transfer) && <CounterOffer transfer={transfer} />}
          {(transfer.hasZone || transfer.zoneNote !== '') && <ZonePart transfer={transfer} />}
        </ToDo>
      </td>
    </tr>
  );
}

/** The old registrar may still offer something for staying. */
function canBeCountered({ stage, toId }: TransferView): boolean {
  return toId !== null && (stage === 'pending' || (BEFORE_REQUEST.includes(stage) && stage !== 'planned'));
}

/** What only a person can decide: a higher price, or to stop. */
function Decide({ transfer }: { transfer: TransferView }) {
  const { ask, isBusy } = useSave({ ledger: true });
  const { id, unicode, stage, askedMinor, currency } = transfer;
  const canStop = BEFORE_REQUEST.includes(stage);
  if (!canStop && askedMinor === null) return null;
  return (
    <>
      {askedMinor !== null && (
        <Button isDisabled={isBusy} onPress={() => void ask(agreeToPriceAction(id, askedMinor), 'Agreed: it goes on.')}>
          Agree to {formatAmount({ minor: askedMinor, currency })}
        </Button>
      )}
      {canStop && (
        <Button
          isDisabled={isBusy}
          aria-label={`Stop the transfer of ${unicode}`}
          onPress={() => void ask(stopTransferAction(id), `${unicode} stays where it is.`)}
        >
          Stop
        </Button>
      )}
    </>
  );
}
