import type { Queryable } from './pool';

/** What the office has set for the whole program. */
export interface Settings {
  readonly homeCurrency: string;
  /** IANA time zone in which days are shown. */
  readonly zone: string;
  /** Days before a price step at which the calendar reminds; empty for no alarms. */
  readonly alarmDays: readonly number[];
  /** How far the clock has been moved forward in the practice world, in milliseconds. */
  readonly clockOffsetMs: number;
}

const USUAL: Settings = {
  homeCurrency: 'USD',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  alarmDays: [7, 1],
  clockOffsetMs: 0,
};

export async function selectSettings(db: Queryable): Promise<Settings> {
  const { rows } = await db.query<{ key: string; value: unknown }>('select key, value from settings');
  return { ...USUAL, ...Object.fromEntries(rows.map((row) => [row.key, row.value])) };
}

export async function upsertSettings(db: Queryable, settings: Partial<Settings>): Promise<void> {
  await db.query(
    `insert into settings (key, value) select key, value from jsonb_each($1::jsonb)
     on conflict (key) do update set value = excluded.value`,
    [JSON.stringify(settings)],
  );
}
