import type { Instant } from '@/core/time';
import type { Deps } from '../deps';

/** Now, by the machine's own clock: sign-ins, their ends and codes never follow a clock that is held still or moved. */
export function machineNow({ machineClock }: Pick<Deps, 'machineClock'>): Instant {
  return machineClock?.() ?? (Date.now() as Instant);
}
