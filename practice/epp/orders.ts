import { at, type Node, textAt } from '@/formats/epp/document';
import { DAY, monthOf } from '../world/calendar';
import * as world from '../world/orders';
import * as registering from '../world/registering';
import * as transfers from '../world/transfers';
import type { Action } from '../world/types';
import { askedToRegister, unregistered } from '../world/unregistered';
import {
  checkData,
  creationData,
  emptyQueue,
  feeCheckData,
  feeTaken,
  holdingData,
  infoData,
  lastTransferOf,
  queued,
  type Response,
  renewalData,
  transferData,
} from './answers';
import type { FaultKind } from './faults';

/** Carries out one command of a session that is logged in, and says what to answer. */
export function carryOut(order: world.Orderer, command: Node, fault: FaultKind | null = null): Response {
  const extension = at(command, 'extension');
  const verb = ['check', 'info', 'renew', 'update', 'transfer', 'create', 'delete', 'poll'].find((one) =>
    at(command, one),
  );
  const body = verb ? at(command, verb) : null;
  if (!verb || !body) return { code: 2000 };
  switch (verb) {
    case 'poll':
      return poll(order, body);
    case 'check':
      return check(order, body, extension);
    case 'info':
      return info(order, body);
    case 'renew':
      return renew(order, body, extension, fault === 'finished later');
    case 'update':
      return update(order, body, extension);
    case 'transfer':
      return transfer(order, body, extension, fault);
    case 'create':
      return create(order, body, extension, fault);
    default:
      return remove(order, body);
  }
}

const answered = ({ code, reason }: world.Answer): Response => ({ code, reason: reason ?? null });
const nameIn = (body: Node, tag: string) => (textAt(body, tag, 'name') ?? '').toLowerCase();

function feeIn(extension: Node | null, tag: string): number | null {
  const text = textAt(extension, tag, 'fee');
  return text === null || !/^\d+(\.\d{1,2})?$/.test(text) ? null : Math.round(Number(text) * 100);
}

function poll(order: world.Orderer, body: Node): Response {
  const { world: all, registrar } = order;
  world.finishOrders(order);
  const mine = all.messages.filter((message) => message.registrar === registrar.id);
  const oldest = mine[0];
  if (body.attributes.op === 'req') {
    if (!oldest) return { code: 1300 };
    return { code: 1301, ...queued(oldest, mine.length, registrar) };
  }
  const id = Number(body.attributes.msgID);
  const place = all.messages.findIndex((message) => message.id === id && message.registrar === registrar.id);
  if (place < 0) return { code: 2303, reason: 'no such message' };
  all.messages.splice(place, 1);
  all.touched.acknowledged.push(id);
  return { code: 1000, queue: emptyQueue(mine.length - 1, mine[1]?.id ?? id) };
}

function check(order: world.Orderer, body: Node, extension: Node | null): Response {
  const names = (at(body, 'check')?.children.name ?? []).map((node) => node.text.toLowerCase());
  const found = names.map((name) => {
    if (order.world.domains.has(name)) return { name, free: false, reason: 'In use' };
    if (unregistered(name).reserved) return { name, free: false, reason: 'Reserved' };
    const isSold = order.registrar.prices[name.slice(name.indexOf('.') + 1)] !== undefined;
    return { name, free: isSold, reason: 'Not sold here' };
  });
  const wanted = (at(extension, 'check')?.children.command ?? []).map((node) => ({
    command: node.attributes.name ?? '',
    years: Number(textAt(node, 'period') ?? 1),
    code: textAt(extension, 'check', 'promotion'),
  }));
  if (wanted.length === 0) return { code: 1000, resData: checkData(found) };
  const code = textAt(extension, 'promotion', 'code');
  const priced = found.map(({ name, free }) => {
    const own = order.world.domains.has(name) ? null : unregistered(name).own;
    const domain = order.world.domains.get(name) ?? {
      ending: name.slice(name.indexOf('.') + 1),
      premiumMinor: own?.renewMinor ?? null,
    };
    const prices = wanted.map(({ command, years }) => {
      const action = command === 'create' ? 'register' : command === 'update' ? 'restore' : (command as Action);
      const isNew = action === 'register' && !order.world.domains.has(name);
      const minor = isNew
        ? askedToRegister(order.registrar, name, years)
        : world.priceNow(order, domain, action, years, code);
      return { command, years, minor };
    });
    return { name, free, premium: domain.premiumMinor !== null, prices };
  });
  return { code: 1000, resData: checkData(found), extension: feeCheckData(order.registrar.currency, priced) };
}

function info(order: world.Orderer, body: Node): Response {
  const { registrar, customer } = order;
  const name = textAt(body, 'info', 'name');
  if (name === null)
    return { code: 1000, resData: holdingData(order.world, registrar, customer, textAt(body, 'info', 'after') ?? '') };
  const own = world.own(order, name.toLowerCase());
  if (!('code' in own)) return { code: 1000, ...infoData(own, registrar, order.world, true) };
  const code = textAt(body, 'info', 'authInfo', 'pw');
  const other = order.world.domains.get(name.toLowerCase());
  if (code === null || !other) return answered(own);
  if (!transfers.isRightCode(order.world, other, code))
    return { code: 2202, reason: 'the code is wrong, or has lapsed' };
  const sponsor = order.world.registrars.get(other.registrar) ?? registrar;
  return { code: 1000, ...infoData(other, sponsor, order.world, false) };
}

function renew(order: world.Orderer, body: Node, extension: Node | null, isForLater: boolean): Response {
  const curExpDate = textAt(body, 'renew', 'curExpDate');
  const years = Number(textAt(body, 'renew', 'period') ?? 1);
  if (!curExpDate) return { code: 2003, reason: 'curExpDate' };
  if (!/^\d{4}-\d{2}-\d{2}$/.test(curExpDate)) return { code: 2005, reason: 'curExpDate' };
  if (!Number.isInteger(years) || years < 1 || years > 99) return { code: 2004, reason: 'period' };
  const wish = {
    name: nameIn(body, 'renew'),
    curExpDate,
    years,
    feeMinor: feeIn(extension, 'renew'),
    promotion: textAt(extension, 'promotion', 'code'),
    payBy: textAt(extension, 'pay'),
  };
  if (isForLater) return answered(world.renewLater(order, wish));
  const done = world.renew(order, wish);
  if (!done.domain) return answered(done);
  return {
    code: done.code,
    resData: renewalData(done.domain),
    extension: feeTaken('renData', order.registrar, order.customer, done),
  };
}

function update(order: world.Orderer, body: Node, extension: Node | null): Response {
  const account = at(body, 'update', 'topUp') ?? at(body, 'update', 'card');
  if (account) {
    const card = at(body, 'update', 'card');
    if (card)
      return answered(
        /^\d{4}-\d{2}$/.test(card.attributes.ends ?? '') && (card.attributes.ends ?? '') >= monthOf(order.world.now)
          ? world.replaceCard(order, card.text, card.attributes.ends as string)
          : { code: 2004, reason: 'this card has ended' },
      );
    const minor = Math.round(Number(account.text) * 100);
    return answered(Number.isFinite(minor) ? world.topUp(order, account.attributes.key ?? '', minor) : { code: 2005 });
  }
  const name = nameIn(body, 'update');
  const restore = at(extension, 'update', 'restore');
  if (restore?.attributes.op === 'request') {
    const done = world.requestRestore(order, name, restoreFee(extension), textAt(extension, 'pay'));
    return done.code === 1000
      ? {
          code: 1000,
          extension: `<rgp:upData xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0"><rgp:rgpStatus s="pendingRestore"/></rgp:upData>${feeTaken('updData', order.registrar, order.customer, done)}`,
        }
      : answered(done);
  }
  if (restore?.attributes.op === 'report') {
    const missing = ['preData', 'postData', 'delTime', 'resTime', 'resReason', 'statement'].filter(
      (tag) => !at(restore, 'report', tag),
    );
    return missing.length > 0 ? { code: 2003, reason: missing.join(', ') } : answered(world.reportRestore(order, name));
  }
  const set = extension?.children.update?.find(
    ({ children }) => children.autoRenew || children.privacy || children.text || children.push,
  );
  const status = (side: string) =>
    at(body, 'update', side)?.children.status?.some((node) => node.attributes.s === 'clientTransferProhibited');
  const hosts = (side: string) =>
    at(body, 'update', side, 'ns')?.children.hostObj?.map((node) => node.text.toLowerCase()) ?? [];
  const [added, removed] = [hosts('add'), hosts('rem')];
  const done = world.change(order, name, {
    ...(textAt(set, 'autoRenew') === null
      ? {}
      : { auto: textAt(set, 'autoRenew') === 'on' ? ('on' as const) : ('off' as const) }),
    ...(textAt(set, 'privacy') === null ? {} : { privacy: textAt(set, 'privacy') === 'on' }),
    ...(status('add') ? { lock: true } : status('rem') ? { lock: false } : {}),
    ...(added.length + removed.length > 0 ? { nameServers: { added, removed } } : {}),
    ...said('text', textAt(set, 'text')),
    ...said('pushTo', textAt(set, 'push')),
    ...codeIn(at(body, 'update', 'chg', 'authInfo')),
  });
  return answered(done);
}

/** A code that is set; one that is unset (RFC 9154 section 4.4). */
function codeIn(authInfo: Node | null): { authInfo?: string | null } {
  if (authInfo === null) return {};
  return { authInfo: authInfo.children.null ? null : textAt(authInfo, 'pw') };
}

const said = (key: string, value: string | null) => (value === null ? {} : { [key]: value });

/** The fee for a restore stands beside it in the same extension (RFC 8748 section 5.2.5). */
function restoreFee(extension: Node | null): number | null {
  const fee = extension?.children.update?.find((node) => node.children.fee);
  const text = textAt(fee, 'fee');
  return text === null ? null : Math.round(Number(text) * 100);
}

function transfer(order: world.Orderer, body: Node, extension: Node | null, fault: FaultKind | null): Response {
  const op = body.attributes.op ?? 'query';
  const wish = {
    name: nameIn(body, 'transfer'),
    op,
    authInfo: textAt(body, 'transfer', 'authInfo', 'pw'),
    feeMinor: feeIn(extension, 'transfer'),
  };
  if (op === 'request' && fault === 'code wrong') return { code: 2202, reason: 'the code is wrong, or has lapsed' };
  const domain = order.world.domains.get(wish.name);
  const isLost = op === 'approve' && fault === 'approval lost' && domain?.transfer;
  const done = isLost ? { code: 1000, domain } : transfers.transfer(order, wish);
  if (op === 'request' && fault === 'transfer rejected' && domain?.transfer)
    domain.transfer.answer = { at: order.world.now + DAY, status: 'clientRejected' };
  if (op === 'request' && fault === 'zone not loaded' && domain?.transfer) domain.transfer.losesZone = true;
  const state = done.domain && lastTransferOf(done.domain);
  if (!done.domain || !state) return answered(done);
  return {
    code: done.code,
    resData: transferData(done.domain.name, state),
    extension: op === 'request' ? feeTaken('trnData', order.registrar, order.customer, done) : '',
  };
}

function create(order: world.Orderer, body: Node, extension: Node | null, fault: FaultKind | null): Response {
  if (fault === 'somebody faster') registering.grab(order.world, nameIn(body, 'create'), 'larkhythe');
  if (fault === 'dearer') return { code: 2004, reason: 'the fee is higher' };
  const authInfo = textAt(body, 'create', 'authInfo', 'pw');
  if (!authInfo) return { code: 2003, reason: 'authInfo' };
  const nameServers = at(body, 'create', 'ns')?.children.hostObj?.map((node) => node.text) ?? [];
  const done = registering.create(order, {
    name: nameIn(body, 'create'),
    years: Number(textAt(body, 'create', 'period') ?? 1),
    feeMinor: feeIn(extension, 'create'),
    authInfo,
    nameServers,
    payBy: textAt(extension, 'pay'),
    isForLater: fault === 'finished later',
  });
  if (done.code === 1001) return answered(done);
  return done.domain
    ? {
        code: done.code,
        resData: creationData(done.domain),
        extension: feeTaken('creData', order.registrar, order.customer, done),
      }
    : answered(done);
}

function remove(order: world.Orderer, body: Node): Response {
  const done = world.remove(order, nameIn(body, 'delete'));
  return done.amountMinor === undefined
    ? answered(done)
    : { code: done.code, extension: feeTaken('delData', order.registrar, order.customer, done) };
}
