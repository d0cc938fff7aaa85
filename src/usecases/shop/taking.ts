import { type ShopSettings, selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import type { SealKey } from '../secrets/seal';

/** The key of what the shop keeps: in the shop its own, elsewhere made of the installation's. */
export function shopKey({ shopKey: own, key }: Pick<Deps, 'shopKey' | 'key'>): SealKey | null {
  return own ?? key?.forShop() ?? null;
}

/** What the windows go by: whether anything can be taken in them, and what the office has set. */
export interface ShopNow extends ShopSettings {
  /** An address for buyers' own pages, a mail server and a key: without them no letter can be confirmed. */
  readonly takes: boolean;
}

export async function shopNow(deps: Deps): Promise<ShopNow> {
  const { shop, mail } = await selectSettings(deps.database);
  return { ...shop, takes: shop.url !== null && mail !== null && shopKey(deps) !== null };
}
