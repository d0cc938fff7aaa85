'use client';
import Link from 'next/link';
import { Notice } from '@/ui/text/Sheet';
import type { OtherKey } from '@/usecases/secrets/keys';

const HREF: Readonly<Record<OtherKey['kind'], (id: number) => string>> = {
  account: (id) => `/setup/accounts/${id}`,
  venue: (id) => `/setup/venues/${id}`,
  mail: () => '/setup/office',
  sale: (id) => `/selling/sales/${id}`,
};

/** Links that stand still because another key sealed their logins, each with the way to where it is typed again. */
export function OtherKeyNotice({ places }: { places: readonly OtherKey[] }) {
  return (
    <Notice role="alert" data-kind="caution">
      The key of this installation is not the one that sealed{' '}
      {places.map(({ kind, id, label }, place) => (
        <span key={`${kind} ${id}`}>
          {place > 0 && ', '}
          <Link href={HREF[kind](id)}>{label}</Link>
        </span>
      ))}
      . Nothing is asked, renewed or sent there until the login is typed again, or the old key is put back.
    </Notice>
  );
}
