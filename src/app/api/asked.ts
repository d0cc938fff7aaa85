import { rowIdIn } from '../http/params';
import type { Asked } from './operation';

/** The number that stands in an address; 0, which nothing has, for anything else. */
export const idIn = ({ path }: Asked, place = 'id'): number => rowIdIn(path[place] ?? '');

/** A member of a body that has no class of its own, as a text. */
export const textOf = ({ body }: Asked, member: string): string => {
  const value = (body as Record<string, unknown> | null)?.[member];
  return typeof value === 'string' ? value : '';
};

/** A member of a body that has no class of its own, as a whole number; `NaN` where it is none. */
export const wholeOf = ({ body }: Asked, member: string): number => {
  const value = (body as Record<string, unknown> | null)?.[member];
  return typeof value === 'number' && Number.isSafeInteger(value) ? value : Number.NaN;
};
