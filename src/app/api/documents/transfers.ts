import { MOVE_EXITS, MOVE_STAGES } from '@/core/moving';
import type { ForeignTransfer } from '@/usecases/moving/foreign';
import type { TransferView } from '@/usecases/moving/underWay';
import type { ZonesOfTransfer } from '@/usecases/moving/zones';
import { amountOf, documentOf, from, instant, named, oneOf, orNull, text, whole, yesNo } from '../kinds';
import { type Ground, grounds } from './answers';

const restsOn = ({ askedMinor }: TransferView): Ground[] => [
  { what: askedMinor === null ? 'the price list of the new account' : 'what the new registrar has asked', asOf: null },
];

export const transfer = named(
  'Transfer',
  documentOf<TransferView>()({
    id: whole,
    name: from(({ ascii }: TransferView) => ascii, text),
    from: text,
    to: text,
    person: orNull(text),
    stage: oneOf(...MOVE_STAGES),
    exit: orNull(oneOf(...MOVE_EXITS)),
    turn: oneOf('program', 'you', 'buyer', 'registry', 'holder', 'registrar', 'nobody'),
    since: instant,
    dueAt: orNull(instant),
    isOverdue: yesNo,
    problem: orNull(text),
    notBefore: instant,
    quoted: amountOf(({ quotedMinor: minor, currency }: TransferView) => ({ minor, currency })),
    asked: amountOf(({ askedMinor: minor, currency }: TransferView) => ({ minor, currency })),
    charged: amountOf(({ chargedMinor: minor, currency }: TransferView) => ({ minor, currency })),
    receipt: orNull(text),
    saleId: orNull(whole),
    confirmMailBy: orNull(instant),
    hasZone: yesNo,
    zoneNote: text,
    restsOn: from(restsOn, grounds),
  }),
);

export const foreign = named(
  'ForeignTransfer',
  documentOf<ForeignTransfer>()({
    id: whole,
    name: from(({ ascii }: ForeignTransfer) => ascii, text),
    account: text,
    seenAt: instant,
    seenBy: oneOf('message', 'record', 'mail'),
    requestedBy: orNull(text),
    actsBy: orNull(instant),
    state: oneOf('open', 'rejecting', 'rejected', 'gone', 'in order', 'over'),
    problem: orNull(text),
  }),
);

type ZoneLine = ZonesOfTransfer['lost'][number];

export const zoneLine = documentOf<ZoneLine>()({ name: text, ttl: whole, type: text, data: text });
