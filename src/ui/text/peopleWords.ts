import type { Area, Role } from '@/core/people';

const ROLE_WORDS: Readonly<Record<Role, { readonly as: string; readonly may: string }>> = {
  owner: { as: 'an owner', may: 'Owners do everything, and let others in.' },
  trader: {
    as: 'a trader',
    may: 'Traders price, list, negotiate, renew, move and acquire names, and plan; they set up nothing.',
  },
  bookkeeper: {
    as: 'a bookkeeper',
    may: 'Bookkeepers read everything, and keep the books: entries, payments into accounts, rates.',
  },
  viewer: { as: 'a viewer', may: 'Viewers read everything, and change nothing.' },
};

/** What a role is called in a sentence, and what it may do. */
export function roleWords(role: Role): { readonly as: string; readonly may: string } {
  return ROLE_WORDS[role];
}

const AREA_WORDS: Readonly<Record<Area, string>> = {
  names: 'names and records',
  renewing: 'renewing and rescuing',
  moving: 'transfers',
  acquiring: 'acquiring',
  selling: 'selling',
  plans: 'assumptions and forecasts',
  books: 'the books',
  setup: 'setup',
  people: 'people',
  own: 'views and notices of its own',
};

/** What an area of the work is called. */
export function areaWords(area: Area): string {
  return AREA_WORDS[area];
}
