import { isRefusal } from '@/core/refusal';
import { type Computation, compute } from '@/usecases/computing';
import { ready } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

/** What the thread has written, as it answers. */
async function written(
  { deps, query }: Asked,
  what: Extract<Computation, 'decisionsToday' | 'verdicts' | 'transferPlan'>,
) {
  const bytes = await (what === 'transferPlan' ? compute(deps, what, query.toString()) : compute(deps, what));
  return isRefusal(bytes) ? bytes : (JSON.parse(new TextDecoder().decode(bytes)) as object);
}

const whole = (least: number, description: string) => ({ schema: { type: 'integer', minimum: least }, description });

/** What a person would decide by: the answers of Today, Rescue and Transfers. */
export const DECISIONS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/today',
    summary: 'What needs a decision today, by what doing nothing leads to, and the charges of the next sixty days',
    answer: ready('Today'),
    run: (asked) => written(asked, 'decisionsToday'),
  }),
  operation({
    method: 'GET',
    path: '/rescue',
    summary: 'Names in danger: whether each is worth its cost, and why',
    answer: ready('Verdicts'),
    run: (asked) => written(asked, 'verdicts'),
  }),
  operation({
    method: 'GET',
    path: '/transfers/plan',
    summary: 'Which names to move where and when, over some years and within a budget: nothing is written',
    query: {
      years: { schema: { type: 'integer', minimum: 1, maximum: 10, default: 1 }, description: 'Over how many years.' },
      budgetMinor: whole(0, 'The most that the transfers may cost, in minor units of the office’s currency.'),
      account: whole(1, 'Only names of this account, by its number.'),
      to: whole(1, 'Only to this account; else to whichever is cheapest.'),
      evenIfDearer: { schema: { type: 'boolean' }, description: 'Move names too that it makes no cheaper.' },
    },
    answer: ready('TransferPlan'),
    run: (asked) => written(asked, 'transferPlan'),
  }),
];
