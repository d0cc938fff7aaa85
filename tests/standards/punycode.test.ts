import { domainToASCII } from 'node:url';
import fc from 'fast-check';
import { toASCII } from 'tr46';
import { expect, test } from 'vitest';
import { parseDomainName } from '@/core/names';
import { isRefusal } from '@/core/refusal';

/** RFC 3492 section 7.1, the sample strings whose letters survive case folding, in lower case. */
const RFC_3492: readonly (readonly [name: string, unicode: string, punycode: string])[] = [
  ['(A) Arabic (Egyptian)', 'ليهمابتكلموشعربي؟', 'egbpdaj6bu4bxfgehfvwxn'],
  ['(B) Chinese (simplified)', '他们为什么不说中文', 'ihqwcrb4cv8a8dqg056pqjye'],
  ['(C) Chinese (traditional)', '他們爲什麽不說中文', 'ihqwctvzc91f659drss3x8bo0yb'],
  ['(D) Czech', 'pročprostěnemluvíčesky', 'proprostnemluvesky-uyb24dma41a'],
  ['(E) Hebrew', 'למההםפשוטלאמדבריםעברית', '4dbcagdahymbxekheh6e0a7fei0b'],
  ['(F) Hindi', 'यहलोगहिन्दीक्योंनहींबोलसकतेहैं', 'i1baa7eci9glrd9b2ae1bj0hfcgg6iyaf8o0a1dig0cd'],
  ['(G) Japanese', 'なぜみんな日本語を話してくれないのか', 'n8jok5ay5dzabd5bym9f0cm5685rrjetr6pdxa'],
  ['(I) Russian', 'почемужеонинеговорятпорусски', 'b1abfaaepdrnnbgefbadotcwatmq2g4l'],
  ['(J) Spanish', 'porquénopuedensimplementehablarenespañol', 'porqunopuedensimplementehablarenespaol-fmd56a'],
  ['(K) Vietnamese', 'tạisaohọkhôngthểchỉnóitiếngviệt', 'tisaohkhngthchnitingvit-kjcr8268qyxafd2f1b9g'],
  ['(L)', '3年b組金八先生', '3b-ww4c5e180e575a65lsy2b'],
  ['(N)', 'hello-another-way-それぞれの場所', 'hello-another-way--fc4qua05auwb3674vfr0b'],
  ['(O)', 'ひとつ屋根の下2', '2-u9tlzr9756bt3uc0v'],
  ['(P)', 'majiでkoiする5秒前', 'majikoi5-783gue6qz075azm5e'],
  ['(Q)', 'パフィーdeルンバ', 'de-jg4avhby1noc0d'],
  ['(R)', 'そのスピードで', 'd9juau41awczczp'],
];

test.each(RFC_3492)('RFC 3492 section 7.1 %s is encoded as published', (_name, unicode, punycode) => {
  expect(parseDomainName(`${unicode}.com`)).toMatchObject({
    ascii: `xn--${punycode}.com`,
    unicode: `${unicode}.com`,
    ending: 'com',
  });
  expect(parseDomainName(`XN--${punycode.toUpperCase()}.COM`)).toMatchObject({ ascii: `xn--${punycode}.com` });
});

/** UTS #46 section 4, table of examples, and section 2: deviation characters under non-transitional processing. */
const UTS_46: readonly (readonly [input: string, ascii: string | null])[] = [
  ['Bloß.de', 'xn--blo-7ka.de'],
  ['faß.de', 'xn--fa-hia.de'],
  ['xn--fa-hia.de', 'xn--fa-hia.de'],
  ['BLOẞ.de', 'xn--blo-7ka.de'],
  ['xn--u-ccb.com', null],
  ['u\u0308.com', 'xn--tda.com'],
  ['Ü.com', 'xn--tda.com'],
  ['öbb.at', 'xn--bb-eka.at'],
  ['XN--BB-EKA.AT', 'xn--bb-eka.at'],
  ['日本語。JP', 'xn--wgv71a119e.jp'],
  ['日本語｡jp', 'xn--wgv71a119e.jp'],
  ['βόλος.com', 'xn--nxasmm1c.com'],
  ['a\u200Db.com', null],
  ['not=std3.com', null],
  ['☕.com', 'xn--53h.com'],
];

test.each(UTS_46)('UTS #46: %s becomes %s', (input, ascii) => {
  const parsed = parseDomainName(input);
  expect(isRefusal(parsed) ? null : parsed.ascii).toBe(ascii);
});

test('the A-label agrees with the URL standard as Node has it, for any letters that both take', () => {
  const letters = fc.string({
    unit: fc.constantFrom(...'abcxyz019-äöüéñøåčžабвгдεζηθ日本語中文한글'),
    minLength: 1,
    maxLength: 20,
  });
  fc.assert(
    fc.property(letters, (label) => {
      const parsed = parseDomainName(`${label}.com`);
      if (isRefusal(parsed)) return;
      expect(parsed.ascii).toBe(domainToASCII(`${label}.com`));
      expect(toASCII(parsed.unicode)).toBe(parsed.ascii);
    }),
  );
});

test('what one parse gives, another parse gives again', () => {
  fc.assert(
    fc.property(fc.domain(), (domain) => {
      const once = parseDomainName(domain);
      if (isRefusal(once)) return;
      expect(parseDomainName(once.ascii)).toEqual(once);
      expect(parseDomainName(once.unicode)).toEqual(once);
    }),
  );
});
