import pLimit from 'p-limit';
import * as commands from '@/formats/epp/commands';
import { readEvent, readPendingResult } from '@/formats/epp/messages';
import { readAvailability, readCreation } from '@/formats/epp/registering';
import {
  type EppResponse,
  readDomainInfo,
  readFeeCheck,
  readHolding,
  readRenewal,
  readTaken,
} from '@/formats/epp/responses';
import { readTransfer } from '@/formats/epp/transfers';
import type { HeldName, LinkAddress, Outcome, RegistrarLink } from './port';
import { EPP_RESULT } from './results';
import { LoginRefused, NoAnswer, questionId, Session } from './session';

export interface LinkOptions {
  /** How long an answer is waited for. */
  readonly timeoutMs?: number;
  /** How many sessions are kept open at most. */
  readonly sessions?: number;
}

/** So many messages are taken in at a time; the rest waits for the next. */
const MOST_MESSAGES = 1000;
/** More pages of an account's names than any account has. */
const MOST_PAGES = 20_000;

/** A registrar link over EPP, with a few sessions that are opened when they are needed and thrown away when in doubt. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one method for each command of the port
export function eppLink(
  address: LinkAddress,
  { timeoutMs = 15_000, sessions: most = 4 }: LinkOptions = {},
): RegistrarLink {
  const idle: Session[] = [];
  const turn = pLimit(most);
  let title = '';

  async function anySession(): Promise<Session> {
    for (let session = idle.pop(); session; session = idle.pop()) if (session.usable) return session;
    const { session, greeting } = await Session.open(address, timeoutMs);
    title = greeting.title;
    return session;
  }

  const withSession = <T>(act: (session: Session) => Promise<T>): Promise<T> =>
    turn(async () => {
      const session = await anySession();
      // After an error nobody knows what the session would answer next: another one is opened.
      const result = await act(session).catch((error: unknown) => {
        session.close();
        throw error;
      });
      if (session.usable) idle.push(session);
      return result;
    });

  /** Sends a command and turns its answer into an outcome. Only what may have reached the server is unknown. */
  async function ask<T>(xml: string, id: string, read: Read<T>, pending: WhenPending = 'settled later') {
    try {
      return await withSession(async (session) => outcomeOf(await session.command(xml, id), read, pending));
    } catch (error) {
      return failed(error);
    }
  }

  return {
    test: async () => {
      try {
        await withSession(async () => undefined);
        return { kind: 'done', value: title, svTRID: null };
      } catch (error) {
        return failed(error);
      }
    },
    async holding() {
      const names: HeldName[] = [];
      for (let pages = 0; pages < MOST_PAGES; pages += 1) {
        const id = questionId();
        const after = names.at(-1)?.name ?? '';
        const page = await ask(commands.infoHolding(after, id), id, readHolding);
        if (page.kind !== 'done') return page;
        // Each page goes on behind the last: a server that always has more would be read for ever.
        if (page.value.names.some(({ name }, i, all) => name <= (all[i - 1]?.name ?? after))) break;
        names.push(...page.value.names);
        if (!page.value.more || page.value.names.length === 0) return { ...page, value: { ...page.value, names } };
      }
      return { kind: 'unknown', cause: 'its list of names repeats itself', sent: true };
    },
    info(name, authInfo) {
      const id = questionId();
      return ask(commands.infoDomain(name, id, authInfo ?? null), id, readDomainInfo);
    },
    fees(action, names, years, currency, promotion) {
      const id = questionId();
      return ask(commands.checkFees(names, [{ command: action, years }], currency, promotion, id), id, readFeeCheck);
    },
    check(names, years, currency) {
      const id = questionId();
      const acts = [
        { command: 'create', years },
        { command: 'renew', years },
      ] as const;
      return ask(commands.checkFees(names, acts, currency, null, id), id, readAvailability);
    },
    create: (order, id) => ask(commands.createDomain(order, id), id, readCreation),
    renew: (order, id) => ask(commands.renewDomain(order, id), id, readRenewal),
    requestRestore: (name, fee, payBy, id) => ask(commands.requestRestore(name, fee, payBy, id), id, readTaken),
    reportRestore: (name, report, id) => ask(commands.reportRestore(name, report, id), id, taken),
    async transfer(op, order, id) {
      const read = (response: EppResponse) => {
        const state = readTransfer(response);
        return state && { ...state, ...readTaken(response) };
      };
      return ask(commands.transferDomain(op, order, id), id, read, 'answered when pending');
    },
    remove: (name, id) => ask(commands.deleteDomain(name, id), id, readTaken),
    change: (name, settings, id) => ask(commands.updateDomain({ name, ...settings }, id), id, taken),
    topUp: (money, key) => {
      const id = questionId();
      return ask(commands.topUp(money, key, id), id, taken);
    },
    replaceCard: (label, endsMonth) => {
      const id = questionId();
      return ask(commands.replaceCard(label, endsMonth, id), id, taken);
    },
    async poll(store) {
      try {
        return await withSession(async (session) => {
          let count = 0;
          const seen = new Set<string>();
          while (count < MOST_MESSAGES) {
            const id = questionId();
            const response = await session.command(commands.pollRequest(id), id);
            if (response.code === 1300) break;
            if (response.code !== 1301 || !response.queue) return outcomeOf(response, () => count);
            const { queue } = response;
            if (seen.has(queue.id))
              return {
                kind: 'unknown',
                cause: `message ${queue.id} comes again though it was acknowledged`,
                sent: true,
              };
            seen.add(queue.id);
            // Stored, then acknowledged: a crash between the two brings the message again, never loses it.
            await store({
              id: queue.id,
              at: queue.at,
              text: queue.text,
              event: readEvent(response),
              transfer: readTransfer(response),
              settled: readPendingResult(response),
              raw: rawOf(response),
            });
            const ackId = questionId();
            await session.command(commands.pollAcknowledge(queue.id, ackId), ackId);
            count += 1;
          }
          return { kind: 'done', value: count, svTRID: null };
        });
      } catch (error) {
        if (error instanceof NoAnswer || error instanceof LoginRefused) return failed(error);
        throw error;
      }
    },
    async close() {
      for (const session of idle.splice(0)) session.close();
    },
  };
}

const taken = () => true as const;

function rawOf({ queue, data }: EppResponse): string {
  return JSON.stringify({ queue, data });
}

type Read<T> = (response: EppResponse) => T | null;
/** Whether 1001 tells already what is to be known, as a transfer’s does, or leaves it to a message. */
type WhenPending = 'settled later' | 'answered when pending';

/** RFC 5730 section 3: 1xxx is success, 2xxx failure; 2400 and its kind say nothing about what was done. */
function outcomeOf<T>(response: EppResponse, read: Read<T>, pending: WhenPending = 'settled later'): Outcome<T> {
  const { code, svTRID } = response;
  if (code === 1001 && pending === 'settled later') return { kind: 'pending', svTRID };
  if (code >= 1000 && code < 2000) {
    const value = read(response);
    if (value === null) return { kind: 'unknown', cause: 'the answer could not be understood', sent: true };
    return { kind: 'done', value, svTRID };
  }
  const reason = response.reason ?? response.message;
  if (code === EPP_RESULT.commandFailed || code === EPP_RESULT.commandFailedAndClosed)
    return { kind: 'unknown', cause: reason, sent: true };
  return { kind: 'refused', code, reason };
}

function failed(error: unknown): Outcome<never> {
  if (error instanceof LoginRefused) return { kind: 'refused', code: error.code, reason: error.message };
  if (error instanceof NoAnswer) return { kind: 'unknown', cause: error.message, sent: error.sent };
  throw error;
}
