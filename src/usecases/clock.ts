import type { Instant } from '@/core/time';
import { selectSettings, upsertSettings } from '@/database/settings';
import type { Deps } from './deps';

/** Reads how far the clock has been moved: at the start of a process, and before what happens by itself. */
export async function loadClock(deps: Deps): Promise<void> {
  deps.time.offsetMs = (await selectSettings(deps.database)).clockOffsetMs;
}

/** Moves the clock forward to an instant. Only the practice world does this: in it, days pass on demand. */
export async function moveClock(deps: Deps, to: Instant): Promise<void> {
  const clockOffsetMs = deps.time.offsetMs + Math.max(0, to - deps.clock());
  await upsertSettings(deps.database, { clockOffsetMs });
  deps.time.offsetMs = clockOffsetMs;
}
