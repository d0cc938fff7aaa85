/**
 * Letters that a name may have and that are read as Latin letters or digits, by what they are read as. Source: confusables.txt of UTS #39
 * (© Unicode, Inc., Unicode License V3), its letters that IDNA2008 allows and that stand for a-z, 0-9; κ, τ and ω besides, from memory.
 */
const READ_AS: Readonly<Record<string, string>> = {
  '2': 'ᒿ',
  '3': '𑣊𖼻',
  '4': 'Ꮞ',
  '6': 'бᏮ𑣕',
  '7': '𑣆',
  '8': 'ȣ৪੪ଃ𐌚',
  '9': '৭੧୨൭𑣌𑣖',
  a: 'ɑαа',
  aa: 'ꜳ',
  ae: 'æӕ',
  ao: 'ꜵ',
  au: 'ꜷ',
  av: 'ꜹꜻ',
  ay: 'ꜽ',
  b: 'Ꮟᑲᖯ',
  c: 'сᴄⲥ𐐽',
  d: 'ԁᏧᑯꓒ',
  dz: 'ʣ',
  e: 'еҽꬲ',
  f: 'քẝꞙꬵ',
  g: 'ƍɡցᶃ',
  h: 'һհᏂ',
  i: 'ıɩɪιіӏᎥꙇ𑣃',
  j: 'ϳј',
  l: 'ǀᛁⵏꓲ𐊊𐌉𖼨',
  ll: 'ǁ',
  ls: 'ʪ',
  lz: 'ʫ',
  n: 'ոռ',
  o: 'οσоօ०০੦૦ଠ୦௦ం౦ಂ೦ംഠ൦ං๐໐ဝ၀ჿዐᴏᴑⲟⵔ〇ꓳꬽ𐊒𐊫𐐬𐓪𐔖𑓐𑣈𑣗𑣠',
  oe: 'œ',
  oo: 'ꚙꝏ',
  p: 'ρрⲣ',
  q: 'ԛգզ',
  r: 'гᴦⲅꭇꭈ',
  rn: '𑜀𑣣',
  s: 'ƽѕꜱ𐑈𑣁',
  tf: 'ꝷ',
  ts: 'ʦ',
  u: 'ʋυսᴜꞟꭎꭒ𐓶𑣘',
  ue: 'ᵫ',
  uo: 'ꭣ',
  v: 'νѵᴠ𑜆𑣀',
  w: 'ɯѡԝաᴡ𑜊𑜎𑜏',
  x: 'хᕁᕽ',
  y: 'ɣʏγуүყᶌỿꭚ𑣜',
  z: 'ᴢ𑣄',
};

const MORE: Readonly<Record<string, string>> = { k: 'κ', t: 'τ', w: 'ω' };

/** What a letter outside a-z and 0-9 is read as. */
export const CONFUSABLES: ReadonlyMap<string, string> = new Map(
  [READ_AS, MORE].flatMap((table) =>
    Object.entries(table).flatMap(([read, letters]) => [...letters].map((letter) => [letter, read] as const)),
  ),
);
