import { USUAL_LEADS } from '@/core/ledger';
import { type NumberStyle, USUAL_STYLE } from '@/core/money';
import { type Assumptions, USUAL_ASSUMPTIONS } from '@/core/odds';
import type { AnswerRule } from '@/core/selling';
import type { DepositRule, OwnTexts, WindowPlace } from '@/core/shop';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** The mail server of the office, and the two addresses. */
export interface MailSettings {
  readonly host: string;
  readonly port: number;
  readonly user: string | null;
  /** Sealed with the key of the installation, base64; `null` without one. */
  readonly sealedPassword: string | null;
  readonly from: string;
  readonly to: string;
}

/** The mailbox to which registrars write, and how far it has been read. */
export interface MailboxSettings {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  /** Sealed with the key of the installation, base64. */
  readonly sealedPassword: string;
  readonly folder: string;
  /** The last mail that was taken in, in the mailbox as it is made now; `null` before the first. */
  readonly place: { readonly validity: string; readonly lastUid: number } | null;
  readonly readAt: Instant | null;
  readonly problem: string | null;
}

/** Mails that are sent to an address of the office's own are taken in by SMTP, on this machine. */
export interface ReceivingSettings {
  readonly port: number;
  readonly address: string;
}

/** Where registration records are asked for. */
export interface RecordServers {
  /** The bootstrap file of RFC 9224, as it was given; `null` without one. */
  readonly bootstrap: unknown;
  /** WHOIS servers by ending, for endings that the bootstrap file does not name: `host` or `host:port`. */
  readonly whois: Readonly<Record<string, string>>;
  /** The name server that is asked what hangs on a name, `host:port`; `null` for none. */
  readonly dns: string | null;
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
}

/** Where rates between currencies are read daily, and how that went last. */
export interface RatesSource {
  readonly url: string;
  /** The currency whose unit a table with a column for each currency prices. */
  readonly base: string;
  /** When they were read last; `null` for never. */
  readonly readAt: Instant | null;
  /** Why they could not be read last; `null` when they were. */
  readonly problem: string | null;
}

/** How names that are for sale are shown to buyers. */
export interface ShopSettings {
  /** Where buyers' own pages stand: an address that stays when a name goes. `null` while none is: then nothing is taken in the windows. */
  readonly url: string | null;
  /** Whether search engines may keep the windows. */
  readonly robots: boolean;
  readonly deposit: DepositRule | null;
  /** Texts of the office's own. */
  readonly texts: OwnTexts;
  /** What has to be set for a name to lead to its window. */
  readonly place: WindowPlace;
  /** The server that certificates come from; `null` where windows are shown by a proxy that has its own. */
  readonly acme: { readonly directory: string; readonly mail: string } | null;
}

/** What the office has set for the whole program. */
export interface Settings {
  readonly homeCurrency: string;
  /** IANA time zone in which days are shown. */
  readonly zone: string;
  /** How figures are written and typed. */
  readonly numberStyle: NumberStyle;
  /** Days before a deadline at which the calendar reminds; empty for no alarms. */
  readonly alarmDays: readonly number[];
  /** Days before a deadline at which a mail reminds. */
  readonly reminderDays: readonly number[];
  /** Restores, transfers, registrations, sales and what is above a limit wait for a second person. */
  readonly secondPerson: boolean;
  /** The first questions were answered: currency, number style, zone, reminders. */
  readonly hasBegun: boolean;
  /** Who is to be reminded, said before there was a mail server to do it. */
  readonly remindTo: string | null;
  /** Where reminders are mailed to and how; `null` for not at all. */
  readonly mail: MailSettings | null;
  /** Where mails of registrars are fetched from; `null` for nowhere. */
  readonly mailbox: MailboxSettings | null;
  /** Where mails of registrars are received; `null` for nowhere. */
  readonly receiving: ReceivingSettings | null;
  /** Where this program is reached, for the links in mails. */
  readonly baseUrl: string;
  /** What is assumed of selling names: by it names are judged. */
  readonly saleOdds: Assumptions;
  /** The office's own reasons for dropping names. */
  readonly dropReasons: readonly string[];
  readonly records: RecordServers;
  /** `null` where rates are brought by hand alone. */
  readonly rates: RatesSource | null;
  /** How offers are answered without the owner; `null` for not at all. */
  readonly answerRule: AnswerRule | null;
  readonly shop: ShopSettings;
  /** How far the clock has been moved forward in the practice world, in milliseconds. */
  readonly clockOffsetMs: number;
}

const USUAL: Settings = {
  homeCurrency: 'USD',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  numberStyle: USUAL_STYLE,
  alarmDays: [7, 1],
  reminderDays: USUAL_LEADS,
  secondPerson: true,
  hasBegun: false,
  remindTo: null,
  mail: null,
  mailbox: null,
  receiving: null,
  baseUrl: 'http://127.0.0.1:4180',
  saleOdds: USUAL_ASSUMPTIONS,
  dropReasons: [
    'Costs more than it brings',
    'The idea is given up',
    'Another name does its work',
    'Never found a buyer',
  ],
  records: { bootstrap: null, whois: {}, dns: null, allowedHosts: [] },
  rates: null,
  answerRule: null,
  shop: {
    url: null,
    robots: true,
    deposit: null,
    texts: {},
    place: { a: [], aaaa: [], cname: null, nameServers: [] },
    acme: null,
  },
  clockOffsetMs: 0,
};

export async function selectSettings(db: Queryable): Promise<Settings> {
  const { rows } = await db.query<{ key: string; value: unknown }>('select key, value from settings');
  const said: Partial<Settings> = Object.fromEntries(rows.map((row) => [row.key, row.value]));
  // What was said before an assumption was thought of is completed by the usual.
  return { ...USUAL, ...said, saleOdds: { ...USUAL_ASSUMPTIONS, ...said.saleOdds } };
}

export async function upsertSettings(db: Queryable, settings: Partial<Settings>): Promise<void> {
  await db.query(
    `insert into settings (key, value) select key, value from jsonb_each($1::jsonb)
     on conflict (key) do update set value = excluded.value`,
    [JSON.stringify(settings)],
  );
}

/** Keeps a number style that is only proposed: nothing that was set is changed. */
export async function proposeNumberStyle(db: Queryable, style: NumberStyle): Promise<void> {
  await db.query(`insert into settings (key, value) values ('numberStyle', $1::jsonb) on conflict do nothing`, [
    JSON.stringify(style),
  ]);
}

/** Notes how the daily rates were read, where they are still read from that address: somebody may have set another meanwhile. */
export async function noteRatesRead(
  db: Queryable,
  url: string,
  outcome: { readonly readAt?: Instant; readonly problem: string | null },
): Promise<void> {
  await db.query("update settings set value = value || $2 where key = 'rates' and value->>'url' = $1", [
    url,
    JSON.stringify(outcome),
  ]);
}

/** Notes how far a mailbox was read, where it is still the one that was read: somebody may have set another meanwhile. */
export async function noteMailboxRead(
  db: Queryable,
  { host, user, folder }: Pick<MailboxSettings, 'host' | 'user' | 'folder'>,
  outcome: Partial<Pick<MailboxSettings, 'place' | 'readAt' | 'problem'>>,
): Promise<void> {
  await db.query(
    "update settings set value = value || $1 where key = 'mailbox' and value->>'host' = $2 and value->>'user' = $3 and value->>'folder' = $4",
    [JSON.stringify(outcome), host, user, folder],
  );
}
