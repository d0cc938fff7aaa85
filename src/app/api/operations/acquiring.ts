import { isRefusal, refuse } from '@/core/refusal';
import { type HolderAddress, holderAddresses, TellAddress, tellAddress } from '@/usecases/acquiring/addresses';
import {
  type ApproachRow,
  approaches,
  beginApproach,
  moveApproach,
  sayApproach,
} from '@/usecases/acquiring/approaches';
import { BeginApproach, MoveApproach, SayApproach } from '@/usecases/acquiring/approachRequests';
import { askNear } from '@/usecases/acquiring/askLinks';
import { TellRegistration, tellRegistration } from '@/usecases/acquiring/byHand';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { type BroughtFree, bringInComingFree, type ComingFreeRow, comingFree } from '@/usecases/acquiring/comingFree';
import { askingProgress, type IdeaSetRow, ideaSets, pauseIdeas, removeIdeas } from '@/usecases/acquiring/ideas';
import {
  RegisterNames,
  type RegistrationRow,
  registerNames,
  registrationRun,
  registrations,
} from '@/usecases/acquiring/register';
import {
  OrderAtRelease,
  orderAtRelease,
  type ReleaseOrderRow,
  type ReleaseTry,
  releaseOrders,
  releaseTries,
  stopRelease,
} from '@/usecases/acquiring/releaseOrders';
import { IdeaSetForm, ReviewRequest } from '@/usecases/acquiring/requests';
import { reviewNames } from '@/usecases/acquiring/review';
import { lookAtUse } from '@/usecases/acquiring/use';
import { shortlist, unwantNames, type WantedRow, WantNames, wantNames } from '@/usecases/acquiring/wanted';
import { compute } from '@/usecases/computing';
import { uuidIn } from '../../http/params';
import { idIn, textOf } from '../asked';
import {
  address,
  approach,
  asking,
  candidate,
  ideaSet,
  type Registrations,
  registration,
  releaseOrder,
  review,
  use,
  wanted,
  written,
} from '../documents/acquiring';
import { begun, bodyOf, carriedOut, count, made, said } from '../documents/answers';
import { documentOf, from, instant, list, orNull, text, whole } from '../kinds';
import { type AnyOperation, operation } from '../operation';

export const ACQUIRING: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/idea-sets',
    summary: 'Sets of ideas for names',
    answer: documentOf<IdeaSetRow[]>()({ sets: from((rows: IdeaSetRow[]) => rows, list(ideaSet)) }),
    run: ({ deps }) => ideaSets(deps),
  }),
  operation({
    method: 'POST',
    path: '/idea-sets',
    summary: 'Write down ideas; the names made of them are asked for',
    body: IdeaSetForm,
    status: 201,
    answer: made,
    run: ({ deps, body }) => compute(deps, 'saveIdeas', null, body),
  }),
  operation({
    method: 'PUT',
    path: '/idea-sets/{id}',
    summary: 'Write a set of ideas anew',
    body: IdeaSetForm,
    answer: made,
    run: (asked) => compute(asked.deps, 'saveIdeas', idIn(asked), asked.body),
  }),
  operation({
    method: 'DELETE',
    path: '/idea-sets/{id}',
    summary: 'Remove a set of ideas',
    answer: carriedOut,
    run: (asked) => removeIdeas(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/idea-sets/{id}/candidates',
    summary: 'The names made of a set of ideas, with what is known of each and what it costs at each account',
    answer: written,
    run: async (asked) => {
      const table = await compute(asked.deps, 'candidateTable', idIn(asked), false);
      return isRefusal(table) ? table : (table as Uint8Array);
    },
  }),
  operation({
    method: 'GET',
    path: '/idea-sets/{id}/progress',
    summary: 'How many of its names are still to be asked for',
    answer: asking,
    run: (asked) => askingProgress(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/idea-sets/{id}/ask',
    summary: 'Ask for its names, for all of them anew or for those not answered',
    bodySchema: bodyOf({ anew: { type: 'boolean' } }),
    answer: asking,
    run: (asked) =>
      compute(asked.deps, 'askAgain', idIn(asked), (asked.body as { anew?: unknown } | null)?.anew === true),
  }),
  operation({
    method: 'POST',
    path: '/idea-sets/{id}/pause',
    summary: 'Pause asking, or go on',
    bodySchema: bodyOf({ paused: { type: 'boolean' } }),
    answer: asking,
    run: (asked) => pauseIdeas(asked.deps, idIn(asked), (asked.body as { paused?: unknown } | null)?.paused === true),
  }),
  operation({
    method: 'GET',
    path: '/candidates/{name}/use',
    summary: 'Whether a name of somebody is in use: name servers, site, mail',
    answer: use,
    run: ({ deps, path }) => lookAtUse(deps, path.name ?? ''),
  }),
  operation({
    method: 'POST',
    path: '/candidates/{name}/near',
    summary: 'Ask for the names that are spelt nearly so',
    answer: count,
    run: ({ deps, path }) => askNear(deps, path.name ?? ''),
  }),
  operation({
    method: 'GET',
    path: '/candidates/{name}',
    summary: 'What is known of a name that one might register',
    answer: candidate,
    run: ({ deps, path }) => compute(deps, 'candidateDetail', path.name ?? '', []),
  }),
  operation({
    method: 'GET',
    path: '/shortlist',
    summary: 'Names that are wanted',
    answer: documentOf<WantedRow[]>()({ names: from((rows: WantedRow[]) => rows, list(wanted)) }),
    run: ({ deps }) => shortlist(deps),
  }),
  operation({
    method: 'POST',
    path: '/shortlist',
    summary: 'Put names on the shortlist',
    body: WantNames,
    status: 201,
    answer: count,
    run: ({ deps, body }) => wantNames(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/shortlist/{name}',
    summary: 'Take a name off the shortlist',
    answer: carriedOut,
    run: ({ deps, path }) => unwantNames(deps, [path.name ?? '']),
  }),
  operation({
    method: 'POST',
    path: '/registrations/review',
    summary: 'What registering names would cost and do, spelt out; nothing is spent',
    body: ReviewRequest,
    answer: review,
    run: ({ deps, body }) => reviewNames(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/registrations',
    summary: 'Registrations that are under way, and the last that ended',
    answer: documentOf<Registrations>()({ open: list(registration), settled: list(registration) }),
    run: ({ deps }) => registrations(deps),
  }),
  operation({
    method: 'POST',
    path: '/registrations',
    summary: 'Register names, each for at most what was agreed',
    body: RegisterNames,
    spends: true,
    status: 202,
    answer: begun,
    run: ({ deps, body }) => registerNames(deps, body),
    after: carryOnRegistrations,
  }),
  operation({
    method: 'GET',
    path: '/registrations/runs/{id}',
    summary: 'How far the registrations of one request are',
    answer: documentOf<RegistrationRow[]>()({ items: from((rows: RegistrationRow[]) => rows, list(registration)) }),
    run: async ({ deps, path }) => {
      const id = uuidIn(path.id ?? '');
      return id === null ? refuse('not-found', 'There is no such registration.') : registrationRun(deps, id);
    },
  }),
  operation({
    method: 'POST',
    path: '/registrations/tell',
    summary: 'Say what came of a registration by hand',
    body: TellRegistration,
    answer: said,
    run: ({ deps, body }) => tellRegistration(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/holder-addresses',
    summary: 'Mail addresses of holders, and whether they are confirmed',
    answer: documentOf<HolderAddress[]>()({ addresses: from((rows: HolderAddress[]) => rows, list(address)) }),
    run: ({ deps }) => holderAddresses(deps),
  }),
  operation({
    method: 'POST',
    path: '/holder-addresses',
    summary: 'Say that an address was confirmed, or asked for again',
    body: TellAddress,
    answer: carriedOut,
    run: ({ deps, body }) => tellAddress(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/approaches',
    summary: 'Holders of names that were written to',
    answer: documentOf<ApproachRow[]>()({ approaches: from((rows: ApproachRow[]) => rows, list(approach)) }),
    run: ({ deps }) => approaches(deps),
  }),
  operation({
    method: 'POST',
    path: '/approaches',
    summary: 'Begin to ask the holder of a name',
    body: BeginApproach,
    status: 201,
    answer: made,
    run: ({ deps, body }) => beginApproach(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/approaches/lines',
    summary: 'Write to a holder, or note what was said',
    body: SayApproach,
    answer: carriedOut,
    run: ({ deps, body }) => sayApproach(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/approaches/moves',
    summary: 'Take an approach on: agreed, paid, arrived, ended',
    body: MoveApproach,
    answer: said,
    run: ({ deps, body }) => moveApproach(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/release-orders',
    summary: 'Orders for names at their release',
    answer: documentOf<ReleaseOrderRow[]>()({ orders: from((rows: ReleaseOrderRow[]) => rows, list(releaseOrder)) }),
    run: ({ deps }) => releaseOrders(deps),
  }),
  operation({
    method: 'POST',
    path: '/release-orders',
    summary: 'Order a name at its release',
    body: OrderAtRelease,
    spends: true,
    status: 201,
    answer: made,
    run: ({ deps, body }) => orderAtRelease(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/release-orders/{id}/stop',
    summary: 'Stop an order',
    answer: carriedOut,
    run: (asked) => stopRelease(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/release-orders/{id}/tries',
    summary: 'Each try of an order, with what was answered',
    answer: documentOf<ReleaseTry[]>()({
      tries: from(
        (rows: ReleaseTry[]) => rows,
        list(documentOf<ReleaseTry>()({ accountId: whole, at: instant, outcome: text })),
      ),
    }),
    run: (asked) => releaseTries(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/coming-free',
    summary: 'Names that are coming free, of those that fit what is wanted',
    answer: documentOf<Awaited<ReturnType<typeof comingFree>>>()({
      listed: whole,
      names: from(
        ({ fitting }: Awaited<ReturnType<typeof comingFree>>) => fitting,
        list(
          documentOf<ComingFreeRow>()({
            name: from(({ ascii }: ComingFreeRow) => ascii, text),
            onDay: orNull(text),
            source: text,
            notedAt: instant,
          }),
        ),
      ),
    }),
    run: ({ deps }) => comingFree(deps),
  }),
  operation({
    method: 'POST',
    path: '/coming-free',
    summary: 'Bring in a list of names that are coming free (CSV)',
    bodySchema: bodyOf({ text: { type: 'string' }, source: { type: 'string', maxLength: 200 } }),
    answer: documentOf<BroughtFree>()({
      added: whole,
      known: whole,
      refused: list(documentOf<{ line: number; problem: string }>()({ line: whole, problem: text })),
    }),
    run: (asked) => bringInComingFree(asked.deps, textOf(asked, 'text'), textOf(asked, 'source')),
  }),
];
