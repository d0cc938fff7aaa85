'use client';
import { Link } from '@/ui/controls/Link';
import { Notice } from '@/ui/text/Sheet';
import type { OtherKey } from '@/usecases/secrets/keys';

const HREF: Readonly<Record<OtherKey['kind'], (id: number) => string>> = {
  account: (id) => `/setup/accounts/${id}`,
  marketplace: (id) => `/setup/marketplaces/${id}`,
  mail: () => '/setup/mail',
  mailbox: () => '/setup/mail',
  sale: (id) => `/selling/sales/${id}`,
  transfer: () => '/transfers',
  webhook: () => '/setup/programs',
  person: () => '/setup/people',
  confirmation: () => '/setup/people',
  letter: () => '/selling',
  certificate: () => '/setup/shop',
  'certificate account': () => '/setup/shop',
};

/** Codes by which a name can be moved. */
const CODES: ReadonlySet<OtherKey['kind']> = new Set(['sale', 'transfer']);

function Places({ places }: { places: readonly OtherKey[] }) {
  return places.map(({ kind, id, label }, place) => (
    <span key={`${kind} ${id}`}>
      {place > 0 && ', '}
      <Link href={HREF[kind](id)}>{label}</Link>
    </span>
  ));
}

/** What stands still because another key sealed it: links with the way to where their login is typed again, and transfer codes. */
export function OtherKeyNotice({ places }: { places: readonly OtherKey[] }) {
  const logins = places.filter(({ kind }) => !CODES.has(kind));
  const codes = places.filter(({ kind }) => CODES.has(kind));
  return (
    <Notice role="alert" data-kind="caution">
      {logins.length > 0 && (
        <p>
          The key of this installation is not the one that sealed the login of <Places places={logins} />. Nothing is
          asked, renewed or sent there until it is typed again, or the old key is put back.
        </p>
      )}
      {codes.length > 0 && (
        <p>
          The transfer code of <Places places={codes} /> was sealed with another key and cannot be shown. Set a new code
          at the registrar by hand, or put the old key back.
        </p>
      )}
    </Notice>
  );
}
