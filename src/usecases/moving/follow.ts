import type { Deps } from '../deps';
import { carryOnTransfers } from './carryOn';
import { carryOnRejections, mailForeign } from './foreign';

/** Takes transfers as far as they go, and those that nobody here asked for to the office's notice. */
export async function followTransfers(deps: Deps): Promise<void> {
  await mailForeign(deps).catch((error: unknown) => deps.log.warn({ err: error }, 'an alarm could not be mailed'));
  await carryOnRejections(deps);
  await carryOnTransfers(deps);
}
