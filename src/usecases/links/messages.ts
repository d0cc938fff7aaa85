import type { Instant } from '@/core/time';
import { type MessageRow, selectMessages } from '@/database/links';
import type { Deps } from '../deps';

export type { MessageRow } from '@/database/links';

const MOST = 200;

/** What registrars have told since an instant, newest first. */
export function messagesSince(deps: Deps, since: Instant): Promise<MessageRow[]> {
  return selectMessages(deps.database, since, MOST);
}
