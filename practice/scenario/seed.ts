import type { Instant } from '@/core/time';
import type { Database } from '@/database/pool';

/** Fills an empty ledger with the demo. */
export async function seedDemo(_database: Database, _now: Instant): Promise<void> {}
