import { REVIEW_BY, REVIEW_PARTS } from '@/core/journal';
import { STANDS } from '@/core/prospects';
import { isRefusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { allAssumptions, dropAssumptions, saveAssumptions, takeAssumptions } from '@/usecases/prospects/assumptions';
import { dropForecast, type KeptForecast, keptForecasts, lookBack } from '@/usecases/prospects/forecasts';
import type { DropListMonth } from '@/usecases/prospects/names';
import { ForecastRequest, KeepForecast, SaveAssumptions, UseAssumptions } from '@/usecases/prospects/requests';
import { readReviewQuery, reviewEntries, yearReview } from '@/usecases/prospects/review';
import { orPlayedTooLong } from '@/usecases/tookTooLong';
import { idIn } from '../asked';
import { carriedOut } from '../documents/answers';
import * as documents from '../documents/prospects';
import { documentOf, from, list, whole } from '../kinds';
import { type AnyOperation, operation } from '../operation';

const words = (values: readonly string[], description: string) => ({
  schema: { type: 'string', enum: [...values] },
  description,
});
const YEAR = { schema: { type: 'string' }, description: 'A calendar year; left out: all years.' };
const BY = words(REVIEW_BY, 'By what the review is divided; left out: by ending.');

/** Whether sales will carry the renewals, which names are worth another year, and what came of it. */
export const PROSPECTS: readonly AnyOperation[] = [
  operation({
    method: 'POST',
    path: '/prospects/forecast',
    summary:
      'Play the coming years by the assumptions that are sent (what is left out is usual), or by the office’s. Nothing is written',
    body: ForecastRequest,
    optionalBody: true,
    answer: documents.forecast,
    run: ({ deps, body }) => orPlayedTooLong(compute(deps, 'forecastNow', body)),
  }),
  operation({
    method: 'GET',
    path: '/prospects/names',
    summary: 'Names by what their next year is worth, what wants a decision first',
    query: {
      stand: words(STANDS, 'Only names that stand so.'),
      limit: { schema: { type: 'integer', minimum: 1, maximum: 1000, default: 100 }, description: 'How many names.' },
      offset: { schema: { type: 'integer', minimum: 0, default: 0 }, description: 'How many names are passed over.' },
    },
    answer: documents.worthOfNames,
    run: ({ deps, query }) => compute(deps, 'worthOfNames', query.toString()),
  }),
  operation({
    method: 'GET',
    path: '/prospects/drop-list',
    summary: 'What is not worth its next year, by the month in which that is charged',
    answer: documentOf<DropListMonth[]>()({
      months: from((months: DropListMonth[]) => months, list(documents.dropMonth)),
    }),
    run: ({ deps }) => compute(deps, 'dropList'),
  }),
  operation({
    method: 'GET',
    path: '/prospects/assumptions',
    summary: 'What the office assumes of selling, and the sets that were kept',
    answer: documents.allAssumptions,
    run: ({ deps }) => allAssumptions(deps),
  }),
  operation({
    method: 'PUT',
    path: '/prospects/assumptions',
    summary: 'Take assumptions into use: by them names are judged. What is left out is usual again',
    body: UseAssumptions,
    answer: documents.allAssumptions,
    run: ({ deps, body }) => takeAssumptions(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/prospects/assumption-sets',
    summary: 'Keep assumptions under a name; the same name again replaces them',
    body: SaveAssumptions,
    answer: documents.allAssumptions,
    run: ({ deps, body }) => saveAssumptions(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/prospects/assumption-sets/{id}',
    summary: 'Forget a set of assumptions',
    answer: documents.allAssumptions,
    run: (asked) => dropAssumptions(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/prospects/forecasts',
    summary: 'Forecasts that were kept',
    answer: documentOf<KeptForecast[]>()({ forecasts: from((rows: KeptForecast[]) => rows, list(documents.kept)) }),
    run: ({ deps }) => keptForecasts(deps),
  }),
  operation({
    method: 'POST',
    path: '/prospects/forecasts',
    summary: 'Play the coming years and keep the forecast, to be held against what happens',
    body: KeepForecast,
    status: 201,
    answer: documentOf<number>()({ id: from((id: number) => id, whole) }),
    run: ({ deps, body }) => orPlayedTooLong(compute(deps, 'keepForecast', body)),
  }),
  operation({
    method: 'GET',
    path: '/prospects/forecasts/{id}',
    summary: 'A kept forecast held against what has happened since',
    answer: documents.lookingBack,
    run: (asked) => lookBack(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'DELETE',
    path: '/prospects/forecasts/{id}',
    summary: 'Forget a kept forecast',
    answer: carriedOut,
    run: (asked) => dropForecast(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/prospects/review',
    summary: 'A year’s cost, sales, profit and return, divided by ending, tag, account or year',
    query: { year: YEAR, by: BY },
    answer: documents.review,
    run: ({ deps, query }) => {
      const asked = readReviewQuery(query);
      return isRefusal(asked) ? Promise.resolve(asked) : yearReview(deps, asked);
    },
  }),
  operation({
    method: 'GET',
    path: '/prospects/review/entries',
    summary: 'The entries behind a figure of the review',
    query: {
      year: YEAR,
      by: BY,
      key: { schema: { type: 'string' }, description: 'Only those of this group.' },
      part: words(REVIEW_PARTS, 'Only costs, prices or fees.'),
    },
    answer: documents.reviewEntries,
    run: ({ deps, query }) => reviewEntries(deps, query),
  }),
];
