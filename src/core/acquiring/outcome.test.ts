import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { amount } from '../money';
import { type Answers, isOpen, judgeAnswers, type LinkAnswer } from './outcome';

const link = (more: Partial<LinkAnswer> = {}): LinkAnswer => ({
  avail: true,
  reason: null,
  isPremium: false,
  register: amount(1138, 'USD'),
  renew: amount(1138, 'USD'),
  ...more,
});
const taken = { avail: false, reason: 'In use' };
const rdap = (found: boolean) => ({ by: 'rdap', found }) as const;

/** Source: RFC 5731 section 3.1.1 (avail), RFC 8748 section 5.1.1 (class), RFC 9083 section 6 (404); the order of trust is common practice. */
describe('what answers come to', () => {
  test.each([
    ['the link sells it', { link: link() }, 'available', 'link'],
    ['the link sells it, an old record is still there', { link: link(), record: rdap(true) }, 'available', 'link'],
    ['at a price of its own', { link: link({ isPremium: true }) }, 'premium', 'link'],
    ['not sold, with a record', { link: link(taken), record: rdap(true) }, 'taken', 'rdap'],
    ['not sold, without a record', { link: link(taken), record: rdap(false) }, 'reserved', 'link'],
    ['not sold, nobody else asked', { link: link(taken) }, 'taken', 'link'],
    ['not sold, delegated', { link: link(taken), delegated: true }, 'taken', 'dns'],
    ['no link, a record', { record: rdap(true) }, 'taken', 'rdap'],
    ['no link, no record', { record: rdap(false) }, 'perhaps', 'rdap'],
    ['no record, but name servers', { record: rdap(false), delegated: true }, 'taken', 'dns'],
    ['only that nothing is delegated', { delegated: false }, 'unknown', 'dns'],
    ['only that it is delegated', { delegated: true }, 'taken', 'dns'],
    ['nobody answered', {}, 'unknown', null],
  ] as const)('%s', (_what, answers, kind, by) => {
    expect(judgeAnswers({ link: null, record: null, delegated: null, ...answers })).toMatchObject({ kind, by });
  });

  test('what is not sure says why', () => {
    expect(judgeAnswers({ link: null, record: rdap(false), delegated: null }).why).toMatch(
      /reserved, or have a price of its own/,
    );
    expect(judgeAnswers({ link: link(taken), record: rdap(false), delegated: null }).why).toMatch(/“In use”/);
    expect(judgeAnswers({ link: link({ isPremium: true, renew: null }), record: null, delegated: null }).why).toMatch(
      /not said/,
    );
  });

  test('nothing but a registrar’s word makes a name available', () => {
    const answers: fc.Arbitrary<Answers> = fc.record({
      link: fc.option(
        fc.record({
          avail: fc.boolean(),
          reason: fc.option(fc.string()),
          isPremium: fc.boolean(),
          register: fc.constant(null),
          renew: fc.constant(null),
        }),
      ),
      record: fc.option(fc.record({ by: fc.constantFrom('rdap' as const, 'whois' as const), found: fc.boolean() })),
      delegated: fc.option(fc.boolean()),
    });
    fc.assert(
      fc.property(answers, (said) => {
        const { kind } = judgeAnswers(said);
        if (kind === 'available' || kind === 'premium') expect(said.link?.avail).toBe(true);
        if (isOpen(kind)) expect(said.link?.avail ?? said.record?.found === false).toBe(true);
      }),
    );
  });
});
