import { createHash } from 'node:crypto';
import { signerOf, type ZoneKey } from '@/formats/zone/delegation';
import type { World } from '../world/types';

const KEY_SIGNING = 257;
const ED25519 = 15;
const SHA_256 = 2;

const keyOf = (name: string, turn: string): ZoneKey => ({
  flags: KEY_SIGNING,
  algorithm: ED25519,
  key: createHash('sha256').update(`${name} ${turn}`).digest(),
});

/** The key that a signed zone shows. A broken one has changed its key, and told no registry. */
export function shownKey(world: World, name: string): ZoneKey | null {
  const state = world.signed.get(name);
  return state ? keyOf(name, state === 'stands' ? 'first' : 'second') : null;
}

/** What the registry vouches for, as `keyTag algorithm digestType digest`. */
export function signerAtRegistry(world: World, name: string): string | null {
  return world.signed.has(name) ? signerOf(name, keyOf(name, 'first'), SHA_256) : null;
}
