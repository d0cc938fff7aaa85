import { playCharges, sharesBalance } from '../funding';
import type { Instant } from '../time';
import { type CostGroups, groupByCost, type RuleIndex } from './costs';
import type { NameTable } from './nameTable';
import {
  byAccount,
  chargedBy,
  groundOf,
  type Projection,
  playedUntil,
  projectionOf,
  projectLedger,
} from './projection';

/**
 * What `projectLedger` would answer after a change, from an earlier projection: only what the change touches, and what has come due since,
 * is played anew. `changed` has at least the ids of all names of which something else is known now. Where names have come or gone, prices or
 * policies have changed, or a new day has begun (UTC), the whole is played.
 */
export function replayLedger(
  earlier: Projection,
  index: RuleIndex,
  names: NameTable,
  changed: readonly number[],
  asOf: Instant,
): Projection {
  const isSame =
    earlier.names.hasPlacesOf(names.columns) &&
    asOf >= earlier.asOf &&
    playedUntil(asOf) === playedUntil(earlier.asOf) &&
    haveSamePrices(earlier.index, index);
  if (!isSame) return projectLedger(index, names, asOf);
  const anew = playedAnew(earlier, index, names, changed, asOf);
  const ground = groundOf(index, names, groupsOf(earlier, index, names, changed));
  const charges = earlier.charges.without(anew);
  for (const [account, places] of byAccount(index, names, anew))
    playCharges(account, chargedBy(account, names, places, ground), asOf, playedUntil(asOf), charges);
  return projectionOf(index, names, asOf, charges, ground, { key: earlier.key, anew });
}

/** What costs the same: as before, unless a changed name is in another account or under another ending now. */
function groupsOf(earlier: Projection, index: RuleIndex, names: NameTable, changed: readonly number[]): CostGroups {
  const isGrouped = changed.every((id) => {
    const place = names.placeOf(id);
    return (
      place === undefined ||
      (names.accountId(place) === earlier.names.accountId(place) && names.ending(place) === earlier.names.ending(place))
    );
  });
  return isGrouped ? earlier.groups : groupByCost(index, names);
}

/** Whether all that names cost and by which policies they live is the same. */
function haveSamePrices(one: RuleIndex, other: RuleIndex): boolean {
  const said = ({ rules: { accounts, assumptions, ...shared } }: RuleIndex) => JSON.stringify(shared);
  return said(one) === said(other);
}

/** The names whose charges are played anew: 1 at their place. */
function playedAnew(
  earlier: Projection,
  index: RuleIndex,
  names: NameTable,
  changed: readonly number[],
  asOf: Instant,
): Uint8Array {
  const anew = new Uint8Array(names.length);
  const accounts = new Set<number>();
  const before = earlier.names;
  const mark = (place: number) => {
    anew[place] = 1;
    accounts.add(before.accountId(place)).add(names.accountId(place));
  };
  for (const id of changed) {
    const place = names.placeOf(id);
    if (place !== undefined) mark(place);
  }
  // What was due by now was only foreseen then.
  const { charges } = earlier;
  for (let place = 0; place < names.length; place += 1) {
    const first = charges.first(place);
    if (first >= 0 && charges.at(first) <= asOf) mark(place);
  }
  const others = new Set<number>();
  for (const id of new Set([...earlier.index.accounts.keys(), ...index.accounts.keys()])) {
    const [then, now] = [earlier.index.accounts.get(id), index.accounts.get(id)];
    if (JSON.stringify(then) !== JSON.stringify(now)) others.add(id);
    // One charge more or less leaves another balance for all that follow.
    else if (now && accounts.has(id) && sharesBalance(now)) others.add(id);
  }
  if (others.size > 0)
    for (let place = 0; place < names.length; place += 1)
      if (others.has(names.accountId(place)) || others.has(before.accountId(place))) mark(place);
  return anew;
}
