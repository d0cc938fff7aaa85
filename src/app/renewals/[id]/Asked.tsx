'use client';
import { formatAmount } from '@/ui/text/figures';
import { type LinkedItem, liveAmount } from './useLinkedRun';

/** What registrars ask now for the names of a run that go over links; empty where none does, or the run has begun. */
export type Asked = ReadonlyMap<number, LinkedItem>;

/** The live price of one name beside the price list's: marked where they differ. */
export function AskedCell({ asked, nameId }: { asked: Asked; nameId: number }) {
  const one = asked.get(nameId);
  if (!one) return <td className="figure soft">by hand</td>;
  const live = liveAmount(one);
  const { total } = one.item;
  const differs = live !== null && total !== null && (live.currency !== total.currency || live.minor !== total.minor);
  return (
    <td className="figure">
      {live === null ? (
        <span className="soft">{one.state.problem ?? '–'}</span>
      ) : (
        <span className={differs ? 'caution' : undefined}>{formatAmount(live)}</span>
      )}
    </td>
  );
}
