import type { Queryable, Transaction } from './pool';

/** Something sealed, where it stands, and what a person calls that place. */
export interface SealedRow {
  /** What it is bound to, like `account 7 link`. */
  readonly place: string;
  readonly sealed: Buffer;
  /** What is shown of it. */
  readonly label: string;
  readonly kind:
    | 'account'
    | 'marketplace'
    | 'mail'
    | 'sale'
    | 'transfer'
    | 'webhook'
    | 'mailbox'
    | 'person'
    | 'confirmation'
    | 'letter'
    | 'certificate'
    | 'certificate account';
  readonly id: number;
}

/** Names the place of a sealed text: it opens nowhere else. */
export const sealPlace = {
  account: (id: number) => `account ${id} link`,
  marketplace: (id: number) => `marketplace ${id} link`,
  mail: () => 'mail password',
  mailbox: () => 'mailbox password',
  sale: (id: number) => `sale ${id} code`,
  transfer: (id: number) => `transfer ${id} code`,
  webhook: (id: number) => `webhook ${id} secret`,
  /** The secret of somebody's codes. */
  person: (id: number) => `person ${id} codes`,
  /** What a command was asked with that waits for a second person: it opens for that command alone. */
  confirmation: (command: string) => `confirmation ${command}`,
  /** The way to a buyer's own page. */
  letter: (id: number) => `letter ${id} link`,
  certificate: (id: number) => `certificate ${id} key`,
  'certificate account': (id: number) => `certificate account ${id} key`,
} as const;

/** The place of a transfer's code: that of a sold name belongs to its sale, whichever transfer carries it. */
export function transferPlace({ id, saleId }: { readonly id: number; readonly saleId: number | null }): string {
  return saleId === null ? sealPlace.transfer(id) : sealPlace.sale(saleId);
}

/** Everything that is sealed in this ledger. */
export async function selectSealed(db: Queryable): Promise<SealedRow[]> {
  const { rows } = await db.query<Omit<SealedRow, 'place'> & { saleId: number | null }>(
    `select 'account' as kind, id, label, link_secret as sealed, null::int as "saleId" from accounts where link_secret is not null
     union all select 'marketplace', id, label, link_secret, null from marketplaces where link_secret is not null
     union all select 'mail', 0, 'the mail server', decode(value->>'sealedPassword', 'base64'), null from settings
       where key = 'mail' and value->>'sealedPassword' is not null
     union all select 'mailbox', 0, 'the mailbox', decode(value->>'sealedPassword', 'base64'), null from settings
       where key = 'mailbox' and value->>'sealedPassword' is not null
     union all select 'sale', s.id, n.ascii, s.auth_code_sealed, null from sales s join names n on n.id = s.name_id
       where s.auth_code_sealed is not null
     union all select 'transfer', t.id, n.ascii, t.code_sealed, t.sale_id from transfers t join names n on n.id = t.name_id
       where t.code_sealed is not null
     union all select 'webhook', id, label, secret, null from webhooks where secret <> ''
     union all select 'person', id, name, code_secret, null from people where code_secret is not null
     union all select 'letter', l.id, l.mail, l.token_sealed, null from letters l where l.token_sealed is not null
     union all select 'certificate', id, host, key_sealed, null from certificates where key_sealed is not null
     union all select 'certificate account', id, directory, key_sealed, null from certificate_accounts
     union all select 'confirmation', id, command, arguments, null from confirmations where state = 'waiting'
     order by 1, 2`,
  );
  return rows.map(({ saleId, ...row }) => ({
    ...row,
    place: placeOf(row, saleId),
  }));
}

function placeOf({ kind, id, label }: Omit<SealedRow, 'place'>, saleId: number | null): string {
  if (kind === 'transfer') return transferPlace({ id, saleId });
  return kind === 'confirmation' ? sealPlace.confirmation(label) : sealPlace[kind](id);
}

/** Puts a text that was sealed anew in the place of the old one. */
export async function updateSealed(
  tx: Transaction,
  { kind, id }: Pick<SealedRow, 'kind' | 'id'>,
  sealed: Buffer,
): Promise<void> {
  switch (kind) {
    case 'account':
      await tx.query('update accounts set link_secret = $2 where id = $1', [id, sealed]);
      return;
    case 'marketplace':
      await tx.query('update marketplaces set link_secret = $2 where id = $1', [id, sealed]);
      return;
    case 'person':
      await tx.query('update people set code_secret = $2 where id = $1', [id, sealed]);
      return;
    case 'letter':
      await tx.query('update letters set token_sealed = $2 where id = $1', [id, sealed]);
      return;
    case 'certificate':
      await tx.query('update certificates set key_sealed = $2 where id = $1', [id, sealed]);
      return;
    case 'certificate account':
      await tx.query('update certificate_accounts set key_sealed = $2 where id = $1', [id, sealed]);
      return;
    case 'confirmation':
      await tx.query('update confirmations set arguments = $2 where id = $1', [id, sealed]);
      return;
    case 'webhook':
      await tx.query('update webhooks set secret = $2 where id = $1', [id, sealed]);
      return;
    case 'sale':
      await tx.query('update sales set auth_code_sealed = $2 where id = $1', [id, sealed]);
      return;
    case 'transfer':
      await tx.query('update transfers set code_sealed = $2 where id = $1', [id, sealed]);
      return;
    case 'mail':
    case 'mailbox':
      await tx.query(
        `update settings set value = jsonb_set(value, '{sealedPassword}', to_jsonb($1::text)) where key = $2`,
        [sealed.toString('base64'), kind],
      );
  }
}

/** Transfer codes that an earlier version kept in the open. */
export async function selectOpenCodes(db: Queryable): Promise<{ id: number; code: string }[]> {
  const { rows } = await db.query<{ id: number; code: string }>(
    'select id, auth_code as code from sales where auth_code is not null',
  );
  return rows;
}

/** Takes the open codes away, once they are sealed. */
export async function dropOpenCodes(tx: Transaction): Promise<void> {
  await tx.query('update sales set auth_code = null where auth_code is not null');
}

/** What is sealed with the shop's own key, which is made of the installation's: the shop never has that. */
export const SEALED_BY_SHOP: ReadonlySet<SealedRow['kind']> = new Set(['letter', 'certificate', 'certificate account']);
