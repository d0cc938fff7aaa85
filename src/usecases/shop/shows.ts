import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsInt } from 'class-validator';
import pLimit from 'p-limit';
import { askDns, type DnsServer } from '@/connectors/records/dnsClient';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { leadsTo, type SeenPlace, type WindowPlace, type WindowRecord, windowRecords } from '@/core/shop';
import { addDays } from '@/core/time';
import { selectSettings } from '@/database/settings';
import {
  type ShownName,
  selectDueLooks,
  selectLooks,
  selectShownNames,
  upsertLooks,
  type WindowLook,
} from '@/database/windowLooks';
import type { Deps } from '../deps';
import { command, itself } from '../people/command';
import { dnsServer } from '../records/servers';
import { readRequest } from '../validate';

const AT_ONCE = 16;
const GROUP = 160;
const MOST_NAMES = 500;

/** What DNS shows of a name. Throws when the server does not answer. */
async function seenPlace(server: DnsServer, ascii: string): Promise<SeenPlace> {
  const data = async (type: 'A' | 'AAAA' | 'NS') => {
    const { answers = [] } = await askDns(server, ascii, type);
    return answers.flatMap((answer) => (answer.type === type ? [String(answer.data)] : []));
  };
  const [a, aaaa, nameServers] = await Promise.all([data('A'), data('AAAA'), data('NS')]);
  return { a, aaaa, nameServers };
}

/** Whether a host other than a name's own leads to the windows too, as DNS shows it now. */
export async function alsoLeads(deps: Deps, host: string): Promise<boolean> {
  const { records, shop } = await selectSettings(deps.database);
  const server = dnsServer(records);
  if (server === null) return false;
  const seen = await seenPlace(server, host).catch(() => null);
  // Name servers stand at the name alone.
  return seen !== null && seen.a.length + seen.aaaa.length > 0 && leadsTo(shop.place, seen);
}

async function look(deps: Deps, server: DnsServer, place: WindowPlace, name: ShownName): Promise<WindowLook> {
  const lookedAt = deps.clock();
  try {
    const seen = await seenPlace(server, name.ascii);
    const found = [
      ...seen.a.map((data) => `A ${data}`),
      ...seen.aaaa.map((data) => `AAAA ${data}`),
      ...seen.nameServers.map((data) => `NS ${data}`),
    ];
    return { nameId: name.id, lookedAt, shows: leadsTo(place, seen), found, problem: null };
  } catch (error) {
    deps.log.info({ err: error, name: name.ascii }, 'a name’s window could not be looked for');
    const why = error instanceof Error ? error.message : 'no reason given';
    return { nameId: name.id, lookedAt, shows: false, found: [], problem: `DNS did not answer: ${why}.` };
  }
}

/** Looks at names, and writes down what was seen group by group. Where a whole group got no answer nobody is asked any more: DNS is away. */
async function lookAt(deps: Deps, names: readonly ShownName[]): Promise<WindowLook[] | null> {
  const { records, shop } = await selectSettings(deps.database);
  const server = dnsServer(records);
  if (server === null) return null;
  const turn = pLimit(AT_ONCE);
  const all: WindowLook[] = [];
  for (let from = 0; from < names.length; from += GROUP) {
    const group = names.slice(from, from + GROUP);
    const looks = await Promise.all(group.map((name) => turn(() => look(deps, server, shop.place, name))));
    await upsertLooks(deps.database, looks);
    all.push(...looks);
    if (looks.every(({ problem }) => problem !== null)) break;
  }
  return all;
}

/** Looks daily whether the names that are for sale lead to their windows. Answers how many were looked at. */
export const lookAtWindows = itself(async (deps: Deps): Promise<number> => {
  const { shop } = await selectSettings(deps.database);
  if (windowRecords(shop.place).length === 0 && shop.place.nameServers.length === 0) return 0;
  const due = await selectDueLooks(deps.database, addDays(deps.clock(), -1));
  return (await lookAt(deps, due))?.length ?? 0;
});

export class WindowNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose a name.' })
  @ArrayMaxSize(MOST_NAMES)
  @IsInt({ each: true })
  nameIds!: number[];
}

/** Looks now whether names lead to their windows. Answers how many of them do. */
export const lookForWindows = command(
  'lookForWindows',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const request = await readRequest(WindowNames, input);
    if (isRefusal(request)) return request;
    const looks = await lookAt(deps, await selectShownNames(deps.database, request.nameIds));
    return looks === null
      ? refuse('no-name-server', 'Say under Setup, Records, which name server is to be asked.')
      : looks.filter(({ shows }) => shows).length;
  },
);

export type { WindowLook };

/** How a name is shown to buyers: what has to be set, where that may be done by a link, and what was seen last. */
export interface WindowShown {
  readonly records: readonly WindowRecord[];
  readonly nameServers: readonly string[];
  /** Where buyers' pages stand, and its window for trial; `null` while the office has not said it. */
  readonly url: string | null;
  /** `null` where nobody has looked yet. */
  readonly look: WindowLook | null;
}

export async function windowShown(deps: Deps, nameId: number): Promise<WindowShown> {
  const [{ shop }, looks] = await Promise.all([selectSettings(deps.database), selectLooks(deps.database, [nameId])]);
  return {
    records: windowRecords(shop.place),
    nameServers: shop.place.nameServers,
    url: shop.url,
    look: looks.get(nameId) ?? null,
  };
}
