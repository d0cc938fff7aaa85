import { isRefusal, type Refusal } from '@/core/refusal';
import type { Day } from '@/core/time';
import { idsOfNames } from '@/usecases/names/ids';
import {
  blockedSenders,
  blockSender,
  type Deposit,
  deposits,
  ReturnDepositForm,
  returnDeposit,
  SenderForm,
  ShopForm,
  ShopTextsForm,
  saveShop,
  saveShopTexts,
  shopSettings,
  TakeDepositForm,
  takeDeposit,
  unblockSender,
} from '@/usecases/shop/settings';
import { lookForWindows, WindowNames, windowShown } from '@/usecases/shop/shows';
import { visitsOf } from '@/usecases/shop/visits';
import { carriedOut, count } from '../documents/answers';
import { blockedKind, depositKind, shopSettingsKind, windowShownKind } from '../documents/shop';
import { day, documentOf, from, list, whole } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

/** The ledger's number of the name in the address; a refusal where there is none. */
async function ofName<T>(asked: Asked, read: (id: number) => Promise<T>): Promise<T | Refusal> {
  const ids = await idsOfNames(asked.deps, [asked.path.name ?? '']);
  if (isRefusal(ids)) return ids;
  return read([...ids.values()][0] as number);
}

type Visits = readonly { readonly day: Day; readonly visits: number }[];

export const SHOP: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/shop',
    summary: 'How names are shown to buyers',
    answer: shopSettingsKind,
    run: ({ deps }) => shopSettings(deps),
  }),
  operation({
    method: 'PUT',
    path: '/shop',
    summary:
      'Set how names are shown to buyers: where their own pages stand, what bids want first, what names have to lead to',
    body: ShopForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveShop(deps, body),
  }),
  operation({
    method: 'PUT',
    path: '/shop/texts/{language}',
    summary: 'Set what buyers read in one language; what is left out is as it ships',
    body: ShopTextsForm,
    fills: { language: 'language' },
    answer: carriedOut,
    run: ({ deps, body }) => saveShopTexts(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/shop/blocked',
    summary: 'Senders of whom nothing is heard',
    answer: documentOf<Awaited<ReturnType<typeof blockedSenders>>>()({
      senders: from((rows: Awaited<ReturnType<typeof blockedSenders>>) => rows, list(blockedKind)),
    }),
    run: ({ deps }) => blockedSenders(deps),
  }),
  operation({
    method: 'POST',
    path: '/shop/blocked',
    summary: 'Hear nothing more of a sender; he is not told',
    body: SenderForm,
    answer: carriedOut,
    run: ({ deps, body }) => blockSender(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/shop/blocked/{sender}',
    summary: 'Hear a sender again',
    answer: carriedOut,
    run: (asked) => unblockSender(asked.deps, { sender: asked.path.sender }),
  }),
  operation({
    method: 'GET',
    path: '/shop/deposits',
    summary: 'Deposits of bids that have to come, or to go back',
    answer: documentOf<Deposit[]>()({ deposits: from((rows: Deposit[]) => rows, list(depositKind)) }),
    run: ({ deps }) => deposits(deps),
  }),
  operation({
    method: 'POST',
    path: '/shop/deposits/{letterId}/take',
    summary: 'Take down a deposit that has come; a bid that waited for it is placed',
    body: TakeDepositForm,
    fills: { letterId: 'letterId' },
    answer: carriedOut,
    run: ({ deps, body }) => takeDeposit(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/shop/deposits/{letterId}/return',
    summary: 'Take down that a deposit was given back',
    body: ReturnDepositForm,
    fills: { letterId: 'letterId' },
    answer: carriedOut,
    run: ({ deps, body }) => returnDeposit(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/shop/looks',
    summary: 'Look now whether names lead to their windows; answers how many do',
    body: WindowNames,
    answer: count,
    run: ({ deps, body }) => lookForWindows(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/shop/windows/{name}',
    summary: 'What has to be set for a name to lead to its window, and what DNS showed last',
    answer: windowShownKind,
    run: (asked) => ofName(asked, (id) => windowShown(asked.deps, id)),
  }),
  operation({
    method: 'GET',
    path: '/shop/windows/{name}/visits',
    summary: 'How often the window of a name was opened in the last 30 days, by day, robots left out',
    answer: documentOf<Visits>()({
      days: from((days: Visits) => days, list(documentOf<Visits[number]>()({ day, visits: whole }))),
    }),
    run: (asked) => ofName(asked, (id) => visitsOf(asked.deps, id)),
  }),
];
