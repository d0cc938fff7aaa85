import { domainToASCII } from 'node:url';
import { expect, test } from 'vitest';
import { parseDomainName } from '@/core/names';
import { isRefusal } from '@/core/refusal';
import { PUBLIC_SUFFIX_LIST_CASES } from './vectors/publicSuffixList';

/** Endings that no registry hands out: the list's default rule `*` would take them, the ledger does not. */
const UNLISTED = new Set(['example.example', 'b.example.example', 'a.b.example.example']);

/** The list's rules for names without a rule of their own, and for a leading dot, which people paste by mistake. */
function expected(input: string, domain: string | null): string | null {
  return UNLISTED.has(input) ? null : domain;
}

test.each(PUBLIC_SUFFIX_LIST_CASES)('Public Suffix List: %s is registrable as %s', (input, domain) => {
  if (input.startsWith('.')) {
    expect(isRefusal(parseDomainName(input))).toBe(true);
    return;
  }
  const parsed = parseDomainName(input, { allowPrivateEndings: true });
  const wanted = expected(input, domain);
  if (wanted === null) {
    expect(isRefusal(parsed)).toBe(true);
  } else if (isRefusal(parsed)) {
    // A host name is refused, and the message names the registrable domain that the list gives.
    expect(parsed.code).toBe('name-is-host');
    expect(domainToASCII(input)).not.toBe(domainToASCII(wanted));
    expect(parsed.message).toMatch(/Did you mean/);
  } else {
    expect(parsed.ascii).toBe(domainToASCII(wanted));
  }
});

test('names under the private section are not taken without asking', () => {
  expect(parseDomainName('seaholly.uk.com')).toMatchObject({ code: 'name-private-ending' });
  expect(parseDomainName('seaholly.uk.com', { allowPrivateEndings: true })).toMatchObject({
    ascii: 'seaholly.uk.com',
    ending: 'uk.com',
  });
});
