import type { AnyOperation } from '../operation';
import { ACCOUNTS } from './accounts';
import { ACQUIRING } from './acquiring';
import { BOOKS } from './books';
import { DECISIONS } from './decisions';
import { MAILS } from './mails';
import { NAMES } from './names';
import { PEOPLE } from './people';
import { PROGRAMS } from './programs';
import { PROSPECTS } from './prospects';
import { RECORDS } from './records';
import { RESTS } from './rests';
import { RUNS } from './runs';
import { SELLING } from './selling';
import { SHOP } from './shop';
import { TRANSFERS } from './transfers';

const TABLE: readonly AnyOperation[] = [
  ...NAMES,
  ...DECISIONS,
  ...ACCOUNTS,
  ...RUNS,
  ...TRANSFERS,
  ...ACQUIRING,
  ...RECORDS,
  ...MAILS,
  ...SELLING,
  ...SHOP,
  ...PROSPECTS,
  ...BOOKS,
  ...PROGRAMS,
  ...PEOPLE,
];

/** Every command and query of `/api/v1` that answers JSON. */
export const OPERATIONS: readonly AnyOperation[] = TABLE.map((one) => {
  const what = RESTS[`${one.method} ${one.path}`];
  return what === undefined ? one : { ...one, rests: [{ what, asOf: null }] };
});
