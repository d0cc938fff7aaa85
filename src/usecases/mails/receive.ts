import { SMTPServer } from 'smtp-server';
import { isRefusal } from '@/core/refusal';
import { type ReceivingSettings, selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { takeInMails } from './takeIn';

const LARGEST_MAIL = 2 * 1024 * 1024;
const LOOK_AGAIN_MS = 5000;
const TRY_AGAIN_MS = 60_000;
const MOST_CLIENTS = 20;

/** A server that takes mails to one address, on loopback: the office's own mail server hands them on to it. It sends none. */
function serverFor(deps: Deps, { address }: ReceivingSettings): SMTPServer {
  return new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: LARGEST_MAIL,
    maxClients: MOST_CLIENTS,
    socketTimeout: 60_000,
    logger: false,
    onRcptTo({ address: to }, _session, done) {
      if (to.toLowerCase() === address) done();
      else done(Object.assign(new Error(`only ${address} is received here`), { responseCode: 550 }));
    },
    onData(stream, _session, done) {
      const pieces: Buffer[] = [];
      stream.on('data', (piece: Buffer) => pieces.push(piece));
      stream.on('end', () => {
        if (stream.sizeExceeded) {
          done(Object.assign(new Error('larger than 2 MB'), { responseCode: 552 }));
          return;
        }
        takeInMails(deps, Buffer.concat(pieces), 'received').then(
          (taken) => (isRefusal(taken) ? done(Object.assign(new Error(taken.message), { responseCode: 554 })) : done()),
          (error: unknown) => {
            deps.log.error({ err: error }, 'a mail could not be taken in');
            // Whoever sends it keeps it, and tries again.
            done(Object.assign(new Error('try again later'), { responseCode: 451 }));
          },
        );
      });
    },
  });
}

/** Listens where the office has set it, and follows when it sets something else, until it is stopped. */
export function keepReceiving(deps: Deps): () => Promise<void> {
  let open: { readonly at: string; readonly server: SMTPServer } | null = null;
  /** Where it could not be listened to, and until when that is left alone. */
  let refused = { at: '', until: 0 };
  const close = async () => {
    const { server } = open ?? {};
    open = null;
    if (server) await new Promise<void>((closed) => server.close(() => closed()));
  };
  const follow = async () => {
    const { receiving } = await selectSettings(deps.database);
    const at = receiving ? `${receiving.address} ${receiving.port}` : '';
    if (at === (open?.at ?? '') || (at === refused.at && Date.now() < refused.until)) return;
    await close();
    if (!receiving) return;
    const server = serverFor(deps, receiving);
    refused = { at, until: Date.now() + TRY_AGAIN_MS };
    await new Promise<void>((ready, failed) => {
      server.once('error', failed);
      server.listen(receiving.port, '127.0.0.1', () => ready());
    });
    server.on('error', (error: unknown) => deps.log.warn({ err: error }, 'a mail broke off'));
    open = { at, server };
    refused = { at: '', until: 0 };
  };
  let turn: Promise<void> = Promise.resolve();
  const look = () => {
    turn = turn.then(follow).catch((error: unknown) => {
      deps.log.warn({ err: error }, 'mails cannot be received: another process listens there, or the port is taken');
    });
  };
  look();
  const timer = setInterval(look, LOOK_AGAIN_MS);
  return async () => {
    clearInterval(timer);
    await turn;
    await close();
  };
}
