import { selectSettings, type Settings } from '@/database/settings';
import type { Deps } from './deps';

/** What the office has set for the whole program. */
export function officeSettings(deps: Deps): Promise<Settings> {
  return selectSettings(deps.database);
}
