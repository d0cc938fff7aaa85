'use client';
import { amount } from '@/core/money';
import type { ItemState } from '@/core/orders';
import { Button } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { termEndWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { type LinkedItem, liveAmount } from './useLinkedRun';

const STATE_WORDS: Readonly<Record<ItemState, string>> = {
  planned: 'to be renewed',
  waiting: 'waiting',
  sending: 'requested, no answer yet',
  pending: 'taken, to be finished',
  done: 'done',
  refused: 'refused',
  reporting: 'paid, report on its way',
  'report refused': 'paid, report refused',
  doubt: 'in doubt',
};
interface LinkedTableProps {
  readonly items: readonly LinkedItem[];
  /** `renewed` or `restored`. */
  readonly past: string;
  readonly isBegun: boolean;
  readonly onLeave: (nameId: number) => void;
}

/** The names of a run over links: what each costs by the list and by the registrar, and how its order stands. */
export function LinkedTable({ items, past, isBegun, onLeave }: LinkedTableProps) {
  const { meta, style } = useLedger();
  return (
    <Wide>
      <Ruled aria-label={`Names ${past} by link`}>
        <thead>
          <tr>
            <th>Name</th>
            <th>Account</th>
            <th>New end</th>
            <th className="figure">Price list</th>
            <th className="figure">{isBegun ? 'Charged' : 'Registrar asks'}</th>
            <th>Status</th>
            <th>
              <span className="visually-hidden">Decide</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {items.map((one) => {
            const { item, state } = one;
            return (
              <tr key={item.nameId}>
                <td className="name">{item.unicode}</td>
                <td>{meta?.rules.accounts.find((account) => account.id === item.accountId)?.label}</td>
                <td>{item.newEnd ? termEndWords(item.newEnd, style) : ''}</td>
                <td className="figure">{item.total && state.state !== 'done' ? formatAmount(item.total) : ''}</td>
                <td className="figure">{isBegun && state.state === 'refused' ? '' : figure(one)}</td>
                <td>
                  <span className={CAUTION.has(state.state) ? 'caution' : undefined}>{statusWords(one, past)}</span>
                  {state.problem && <div className="soft">{state.problem}</div>}
                  {state.receipt && <span className="soft"> receipt {state.receipt}</span>}
                </td>
                <td>
                  {state.state === 'doubt' && (
                    <Button data-kind="plain" onPress={() => onLeave(item.nameId)}>
                      Leave it
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Wide>
  );
}

const CAUTION: ReadonlySet<ItemState> = new Set<ItemState>(['refused', 'doubt', 'report refused']);

function statusWords({ item, state }: LinkedItem, past: string): string {
  if (item.refusal && state.state === 'planned') return item.refusal.message;
  if (state.state === 'done') return past;
  return state.state === 'planned' ? `to be ${past}` : STATE_WORDS[state.state];
}

/** What the registrar asks, or what it has taken. */
function figure(one: LinkedItem): string {
  const { item, state } = one;
  const currency = state.currency ?? item.total?.currency;
  if (state.chargedMinor !== null && currency) return formatAmount(amount(state.chargedMinor, currency));
  const live = liveAmount(one);
  return live ? formatAmount(live) : '';
}
