import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NewsKind } from '@/core/news';

/** What a mail says of one name: its date as `YYYY-MM-DD`, its amount as `11.38 USD`. */
export interface Said {
  readonly name: string;
  readonly date?: string;
  readonly amount?: string;
}

/** A mail of an invented registrar, and what it says. */
export interface InventedMail {
  readonly kind: NewsKind;
  readonly subject: string;
  readonly body: string;
  readonly says: readonly Said[];
}

/** An invented registrar with its language, its sender, and five of its mails. */
export interface InventedRegistrar {
  readonly title: string;
  readonly language: string;
  readonly from: string;
  readonly mails: readonly InventedMail[];
}

/** Names of the ledger, each at the registrar whose mail speaks of it. */
export const NAMES = ['kelpkiln.com', 'quaybarrow.com', 'tidewick.net', 'xn--mwenspeicher-4ib.de'] as const;

/** Twelve invented registrars in eleven languages, five mails each. */
export const REGISTRARS: readonly InventedRegistrar[] = JSON.parse(
  readFileSync(join(import.meta.dirname, '../vectors/mails.json'), 'utf8'),
);
