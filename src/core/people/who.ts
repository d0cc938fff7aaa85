/** What somebody may do, from all to reading alone; `access.ts` says what that is. */
export const ROLES = ['owner', 'trader', 'bookkeeper', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

/** A part of the work; a program's token may be held to some of them. */
export const AREAS = [
  'names',
  'renewing',
  'moving',
  'acquiring',
  'selling',
  'plans',
  'books',
  'setup',
  'people',
  'own',
] as const;
export type Area = (typeof AREAS)[number];

/** Somebody who is set up: a person who has signed in, or another program with its token. */
export interface Member {
  readonly kind: 'person' | 'program';
  readonly id: number;
  readonly name: string;
  readonly role: Role;
  /** Areas in which a program may act; `null`: all that its role may. */
  readonly scope: readonly Area[] | null;
  /** What may be spent in a calendar month without a second person, in minor units of the home currency; `null`: no limit. */
  readonly monthlyLimitMinor: number | null;
}

/**
 * Who asks for something: whoever sits at the machine while nobody is set up, this program by itself, somebody who is set up, or
 * somebody who has not said who he is though he must.
 */
export type Who = { readonly kind: 'office' | 'itself' | 'stranger' } | Member;

/** Whether it is somebody who is held to a role. */
export function isMember(who: Who | undefined): who is Member {
  return who?.kind === 'person' || who?.kind === 'program';
}
