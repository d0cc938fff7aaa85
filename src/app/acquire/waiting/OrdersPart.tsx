'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { dayWords, hourWords, untilWords } from '@/ui/text/words';
import type { ReleaseOrderRow, ReleaseTry } from '@/usecases/acquiring/releaseOrders';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';
import { releaseTriesAction, stopReleaseAction } from '../actions';

const STATE_WORDS: Readonly<Record<ReleaseOrderRow['state'], string>> = {
  waiting: 'waited for',
  trying: 'being tried',
  got: 'registered',
  lost: 'somebody else was faster',
  over: 'over',
  stopped: 'stopped',
};

function OrdersHead() {
  return (
    <thead>
      <tr>
        <th>Name</th>
        <th>From, at the earliest</th>
        <th>Until</th>
        <th className="figure">At most</th>
        <th>At</th>
        <th>How it stands</th>
        <th>
          <span className="visually-hidden">Act</span>
        </th>
      </tr>
    </thead>
  );
}

/** Orders at release: when they begin, how they stand, and everything that was tried. */
export function OrdersPart({ orders }: { orders: readonly ReleaseOrderRow[] }) {
  const { style, meta } = useLedger();
  const { ask } = useSave();
  const labels = new Map((meta?.rules.accounts ?? []).map(({ id, label }) => [id, label]));
  return (
    <Section aria-label="Ordered at release">
      <h2>Ordered at release</h2>
      <Wide>
        <Ruled aria-label="Orders at release">
          <OrdersHead />
          <tbody>
            {orders.map((order) => {
              const {
                id,
                ascii,
                unicode,
                fromAt,
                untilAt,
                mostFirstMinor,
                mostRenewalMinor,
                currency,
                accountIds,
                state,
                problem,
              } = order;
              const isOpen = state === 'waiting' || state === 'trying';
              return (
                <tr key={id} data-off={!isOpen}>
                  <td>
                    <Link
                      href={state === 'got' ? namePage(ascii) : `/record/${encodeURIComponent(ascii)}`}
                      className="name"
                    >
                      {unicode}
                    </Link>
                  </td>
                  <td className="whole">{dayWords(fromAt, style)}</td>
                  <td className="whole">{untilWords(untilAt, style)}</td>
                  <td className="figure">
                    {formatAmount({ minor: mostFirstMinor, currency })}
                    <div className="soft">then {formatAmount({ minor: mostRenewalMinor, currency })}</div>
                  </td>
                  <td>{accountIds.map((one) => labels.get(one) ?? one).join(', ')}</td>
                  <td>
                    {STATE_WORDS[state]}
                    {problem && <div className="soft">{problem}</div>}
                    {order.person !== null && <div className="soft">by {order.person}</div>}
                    <Tries orderId={id} unicode={unicode} labels={labels} />
                  </td>
                  <td className="figure">
                    {isOpen && (
                      <Button
                        data-kind="plain"
                        aria-label={`Stop the order for ${unicode}`}
                        onPress={() => void ask(stopReleaseAction(id), `${unicode} is no longer ordered.`)}
                      >
                        Stop
                      </Button>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

interface TriesProps {
  readonly orderId: number;
  readonly unicode: string;
  readonly labels: ReadonlyMap<number, string>;
}

/** The log of an order, read when it is opened. */
function Tries({ orderId, unicode, labels }: TriesProps) {
  const { style } = useLedger();
  const [tries, setTries] = useState<readonly ReleaseTry[] | null>(null);
  return (
    <Disclosure
      summary="What was tried"
      label={`What was tried for ${unicode}`}
      onOpen={() => void releaseTriesAction(orderId).then(setTries)}
    >
      {tries?.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul>
        {(tries ?? []).map(({ accountId, at, outcome }) => (
          <li key={`${accountId} ${at}`}>
            {hourWords(at, style)}, {labels.get(accountId)}: {outcome}
          </li>
        ))}
      </ul>
    </Disclosure>
  );
}
