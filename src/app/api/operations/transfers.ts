import { type Refusal, refuse } from '@/core/refusal';
import { NameArrived, takeArrival } from '@/usecases/moving/arrival';
import {
  agreeToPrice,
  codeOfTransfer,
  noteCounterOffer,
  stayAfterAll,
  stopTransfer,
  tellTransfer,
} from '@/usecases/moving/byHand';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { type ForeignTransfer, foreignTransfers, rejectForeign, settleForeign } from '@/usecases/moving/foreign';
import { StartTransfers, TellTransfer } from '@/usecases/moving/requests';
import { type StartedTransfers, startTransfers } from '@/usecases/moving/start';
import { type TransferView, transferById, transfersUnderWay } from '@/usecases/moving/underWay';
import { bringZone, type ZonesOfTransfer, zonesOfTransfer } from '@/usecases/moving/zones';
import { idIn, textOf, wholeOf } from '../asked';
import { begun, bodyOf, carriedOut, count, found, secret } from '../documents/answers';
import { foreign, transfer, zoneLine } from '../documents/transfers';
import { documentOf, from, list, orNull, text, whole, yesNo } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

const one = async (asked: Asked) => found(await transferById(asked.deps, idIn(asked)), 'transfer');

/** Does a step of a transfer that is under way; what follows goes on by itself. */
const step = (
  name: string,
  summary: string,
  work: (asked: Asked) => Promise<true | Refusal>,
  bodySchema?: AnyOperation['bodySchema'],
): AnyOperation =>
  operation({
    method: 'POST',
    path: `/transfers/{id}/${name}`,
    summary,
    ...(bodySchema ? { bodySchema } : {}),
    answer: carriedOut,
    run: work,
    after: carryOnTransfers,
  });

const MINOR = { type: 'integer', minimum: 0 };

export const TRANSFERS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/transfers',
    summary: 'Transfers that are under way',
    answer: documentOf<TransferView[]>()({ transfers: from((rows: TransferView[]) => rows, list(transfer)) }),
    run: ({ deps }) => transfersUnderWay(deps),
  }),
  operation({
    method: 'POST',
    path: '/transfers',
    summary: 'Put names on their way to other accounts',
    body: StartTransfers,
    spends: true,
    status: 202,
    answer: documentOf<StartedTransfers>()({ id: text, names: whole, left: whole }),
    run: ({ deps, body, key }) => startTransfers(deps, body, key),
    after: carryOnTransfers,
  }),
  operation({
    method: 'GET',
    path: '/transfers/{id}',
    summary: 'One transfer',
    answer: transfer,
    run: one,
  }),
  operation({
    method: 'POST',
    path: '/transfers/{id}/tell',
    summary: 'Say what was done or seen where no link says it',
    body: TellTransfer,
    fills: { id: 'id' },
    answer: carriedOut,
    run: ({ deps, body }) => tellTransfer(deps, body),
    after: carryOnTransfers,
  }),
  step('stop', 'Stop a transfer, and put back what was changed for it', (asked) =>
    stopTransfer(asked.deps, idIn(asked)),
  ),
  step(
    'agree',
    'Agree to what the new registrar asks, in minor units of its currency',
    (asked) => {
      const minor = wholeOf(asked, 'minor');
      return minor >= 0
        ? agreeToPrice(asked.deps, idIn(asked), minor)
        : Promise.resolve(refuse('request-invalid', 'Write the amount in minor units, as a whole number.', 'minor'));
    },
    bodyOf({ minor: MINOR }),
  ),
  step(
    'counter-offer',
    'Note what the old registrar offers for staying; without an amount it was declined',
    (asked) => {
      const minor = wholeOf(asked, 'minor');
      return noteCounterOffer(asked.deps, idIn(asked), Number.isNaN(minor) ? 'declined' : { minor });
    },
    bodyOf({ minor: MINOR }, []),
  ),
  step('stay', 'Stay with the old registrar after all', (asked) => stayAfterAll(asked.deps, idIn(asked))),
  operation({
    method: 'POST',
    path: '/transfers/{id}/code',
    isSecret: true,
    summary: 'The code of a transfer, as a person would ask for it',
    answer: secret,
    run: (asked) => codeOfTransfer(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/transfers/{id}/zones',
    summary: 'What hung on the name before, and what has gone or come since',
    answer: documentOf<ZonesOfTransfer>()({
      before: orNull(text),
      lost: list(zoneLine),
      came: list(zoneLine),
      isCompared: yesNo,
    }),
    run: (asked) => zonesOfTransfer(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'PUT',
    path: '/transfers/{id}/zone',
    summary: 'Bring the zone file of the old account (RFC 1035); answers how many records it holds',
    bodySchema: bodyOf({ text: { type: 'string' } }),
    answer: count,
    run: (asked) => bringZone(asked.deps, idIn(asked), textOf(asked, 'text')),
  }),
  operation({
    method: 'POST',
    path: '/transfers/arrivals',
    summary: 'Take down a name that has come from elsewhere',
    body: NameArrived,
    status: 201,
    answer: begun,
    run: ({ deps, body }) => takeArrival(deps, body),
    after: carryOnTransfers,
  }),
  operation({
    method: 'GET',
    path: '/foreign-transfers',
    summary: 'Transfers that nobody here asked for',
    answer: documentOf<ForeignTransfer[]>()({ transfers: from((rows: ForeignTransfer[]) => rows, list(foreign)) }),
    run: ({ deps }) => foreignTransfers(deps),
  }),
  operation({
    method: 'POST',
    path: '/foreign-transfers/{id}/reject',
    summary: 'Reject one, lock its name and change its code',
    answer: carriedOut,
    run: (asked) => rejectForeign(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/foreign-transfers/{id}/settle',
    summary: 'Say how one ended that was settled by hand',
    bodySchema: bodyOf({ as: { type: 'string', enum: ['rejected', 'in order'] } }),
    answer: carriedOut,
    run: (asked) => {
      const as = textOf(asked, 'as');
      return as === 'rejected' || as === 'in order'
        ? settleForeign(asked.deps, idIn(asked), as)
        : Promise.resolve(refuse('request-invalid', 'Say rejected, or in order.', 'as'));
    },
  }),
];
