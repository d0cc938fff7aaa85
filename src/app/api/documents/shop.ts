import type { BlockedSender, Deposit, ShopSettings } from '@/usecases/shop/settings';
import type { WindowLook, WindowShown } from '@/usecases/shop/shows';
import { byName, documentOf, figure, from, instant, list, named, oneOf, orNull, text, whole, yesNo } from '../kinds';

const ofSettings = documentOf<ShopSettings>();

/** How names are shown to buyers. */
export const shopSettingsKind = named(
  'ShopWindow',
  ofSettings({
    url: orNull(text),
    robots: yesNo,
    deposit: orNull(
      documentOf<NonNullable<ShopSettings['deposit']>>()({ fromMinor: whole, currency: text, percent: figure }),
    ),
    texts: from((shop: ShopSettings) => shop.texts as Record<string, Record<string, string>>, byName(byName(text))),
    acme: orNull(documentOf<NonNullable<ShopSettings['acme']>>()({ directory: text, mail: text })),
    place: documentOf<ShopSettings['place']>()({
      a: list(text),
      aaaa: list(text),
      cname: orNull(text),
      nameServers: list(text),
    }),
  }),
);

export const blockedKind = named(
  'BlockedSender',
  documentOf<BlockedSender>()({ sender: text, at: instant, person: orNull(text) }),
);

/** A bid by a window and its deposit; amounts are minor units. */
export const depositKind = named(
  'Deposit',
  documentOf<Deposit>()({
    id: whole,
    name: from((one: Deposit) => one.ascii, text),
    buyer: text,
    mail: text,
    currency: text,
    maxMinor: from((one: Deposit) => one.minor, whole),
    depositMinor: whole,
    heldMinor: whole,
    isEnded: yesNo,
  }),
);

const look = documentOf<WindowLook>()({
  lookedAt: instant,
  shows: yesNo,
  found: list(text),
  problem: orNull(text),
});

/** What has to be set for a name to lead to its window, and what DNS showed last. */
export const windowShownKind = documentOf<WindowShown>()({
  records: list(
    documentOf<WindowShown['records'][number]>()({ owner: text, type: oneOf('A', 'AAAA', 'CNAME', 'NS'), data: text }),
  ),
  nameServers: list(text),
  url: orNull(text),
  look: orNull(look),
});
