import type { AutoRenewSetting } from '@/core/funding';
import type { Purpose } from '@/core/ledger';
import { OPEN_RUNS } from '@/core/orders';
import type { Instant } from '@/core/time';
import { oneOf } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** A name that is being dropped on purpose. */
export interface DropRow {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly begunAt: Instant;
  readonly reason: string;
  readonly hasZone: boolean;
  readonly checked: readonly string[];
  readonly setting: AutoRenewSetting;
  /** What the registrar was asked, while it has not confirmed. */
  readonly requested: 'on' | 'off' | null;
  readonly pendingSince: Instant | null;
}

/** Notes why names are dropped, what was kept of them, and how they were before. */
export async function insertDrops(
  tx: Transaction,
  at: Instant,
  about: { readonly reason: string; readonly zone: string | null; readonly checked: readonly string[] },
  nameIds: readonly number[],
): Promise<void> {
  await tx.query(
    `insert into drops (name_id, begun_at, reason, zone, checked, purpose_before, setting_before)
     select id, $2, $3, $4, $5, case when purpose = 'drop' then 'hold' else purpose end, setting from names where id = any($1)
     on conflict (name_id) where taken_back_at is null and released_at is null do update
       set reason = excluded.reason, zone = coalesce(excluded.zone, drops.zone), checked = excluded.checked`,
    [nameIds, new Date(at), about.reason, about.zone, about.checked],
  );
}

/** Every name that is being dropped, the newest first. */
export async function selectDrops(db: Queryable): Promise<DropRow[]> {
  const { rows } = await db.query<DropRow>(
    `select n.id as "nameId", n.ascii, n."unicode", coalesce(l.begun_at, n.added_at) as "begunAt", coalesce(l.reason, '') as reason,
       l.zone is not null as "hasZone", coalesce(l.checked, '{}') as checked, n.setting, n.requested, n.switch_pending_since as "pendingSince"
     from names n left join drops l on l.name_id = n.id and l.taken_back_at is null and l.released_at is null
     where n.purpose = 'drop' and n.gone_at is null order by 4 desc, n.ascii`,
  );
  return rows;
}

/** How names were before they were dropped; those of which nobody knows are held, as they are set now. */
export async function selectBeforeDrop(
  tx: Transaction,
  nameIds: readonly number[],
): Promise<{ nameId: number; purpose: Purpose; setting: AutoRenewSetting; settingNow: AutoRenewSetting }[]> {
  const { rows } = await tx.query<{
    nameId: number;
    purpose: Purpose;
    setting: AutoRenewSetting;
    settingNow: AutoRenewSetting;
  }>(
    `select n.id as "nameId", coalesce(l.purpose_before, 'hold') as purpose, coalesce(l.setting_before, n.setting) as setting,
       n.setting as "settingNow"
     from names n left join drops l on l.name_id = n.id and l.taken_back_at is null and l.released_at is null
     where n.id = any($1) and n.purpose = 'drop' for update of n`,
    [nameIds],
  );
  return rows;
}

/** Ends the dropping of names: they are kept after all, or were released. */
export async function endDrops(
  tx: Transaction,
  nameIds: readonly number[],
  at: Instant,
  how: 'taken back' | 'released',
): Promise<void> {
  const column = how === 'released' ? 'released_at' : 'taken_back_at';
  await tx.query(
    `update drops set ${column} = $2 where name_id = any($1) and taken_back_at is null and released_at is null`,
    [nameIds, new Date(at)],
  );
}

/** The zone that was kept of a name when it was dropped, the newest; `null` without one. */
export async function selectKeptZone(db: Queryable, nameId: number): Promise<string | null> {
  const { rows } = await db.query<{ zone: string }>(
    'select zone from drops where name_id = $1 and zone is not null order by id desc limit 1',
    [nameId],
  );
  return rows[0]?.zone ?? null;
}

/** What the program knows to hang on each name. */
export interface HangingOn {
  readonly nameId: number;
  readonly ascii: string;
  readonly nameServers: readonly string[];
  /** Runs that are planned or under way with it. */
  readonly runs: number;
  readonly confirmMailBy: Instant | null;
}

export async function selectHangingOn(db: Queryable, nameIds: readonly number[]): Promise<HangingOn[]> {
  const { rows } = await db.query<HangingOn>(
    `select n.id as "nameId", n.ascii, n.name_servers as "nameServers", n.confirm_mail_by as "confirmMailBy",
       (select count(*) from renewal_items i join renewals r on r.id = i.renewal_id
        where i.name_id = n.id and r.status ${oneOf(OPEN_RUNS)}) as runs
     from names n where n.id = any($1)`,
    [nameIds],
  );
  return rows;
}

/** How auto-renew is set for some names. */
export async function selectAutoRenewOf(
  tx: Transaction,
  nameIds: readonly number[],
): Promise<Map<number, AutoRenewSetting>> {
  const { rows } = await tx.query<{ id: number; setting: AutoRenewSetting }>(
    'select id, setting from names where id = any($1)',
    [nameIds],
  );
  return new Map(rows.map(({ id, setting }) => [id, setting]));
}
