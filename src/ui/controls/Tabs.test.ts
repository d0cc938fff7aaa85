import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test, vi } from 'vitest';
import { Tabs } from './Tabs';

let path = '/';
vi.mock('next/navigation', () => ({ usePathname: () => path }));

const PARTS = [
  { href: '/selling', text: 'To do', also: ['/selling/offers'] },
  { href: '/selling/listings', text: 'Listings', also: ['/selling/names'] },
  { href: '/selling/sold', text: 'Sold', hasBelow: true },
] as const;

/** The parts that are marked as the present one. */
function marked(at: string): string[] {
  path = at;
  const markup = renderToStaticMarkup(createElement(Tabs, { label: 'Selling', parts: PARTS }));
  return [...markup.matchAll(/<a ([^>]*)>([^<]*)</g)]
    .filter(([, attributes]) => attributes?.includes('aria-current="page"'))
    .map(([, , text]) => text ?? '');
}

test.each([
  ['/selling', ['To do']],
  ['/selling/offers/7', ['To do']],
  ['/selling/listings', ['Listings']],
  ['/selling/names/kelpkiln.com', ['Listings']],
  ['/selling/sold', ['Sold']],
  ['/selling/sold/2026', ['Sold']],
])('at %s a person is in %s', (at, wanted) => {
  expect(marked(at)).toEqual(wanted);
});

test('what only begins alike is not below it', () => {
  expect(marked('/selling/soldier')).toEqual([]);
  expect(marked('/selling/listings/csv')).toEqual([]);
});
