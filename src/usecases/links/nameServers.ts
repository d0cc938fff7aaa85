import { randomUUID } from 'node:crypto';
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsBoolean, IsInt, IsString, MaxLength } from 'class-validator';
import pLimit from 'p-limit';
import { lookAtDelegation } from '@/connectors/records/dnsClient';
import type { RegistrarLink } from '@/connectors/registrar/port';
import { readHosts } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { PatchedName } from '@/database/changes';
import { type NameAtAccount, selectNamesAt } from '@/database/names';
import { selectNewestRecords } from '@/database/records';
import { selectSettings } from '@/database/settings';
import { changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { dnsServer } from '../records/servers';
import { readRequest } from '../validate';
import { linkOf } from './links';

/** As many names as are changed at a time: each is asked and answered while the person waits. */
const MOST_NAMES = 500;
const AT_ONCE = 8;

export class ChangeNameServers {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES, { message: `Change up to ${MOST_NAMES} names at a time. Choose fewer.` })
  @IsInt({ each: true })
  nameIds!: number[];

  /** One a line, or separated by commas. */
  @IsString()
  @MaxLength(4000)
  hosts!: string;

  /** Names at accounts without a link have been changed there by hand. */
  @IsBoolean()
  byHand!: boolean;

  /** Signed zones too: their keys are the same at the new servers. */
  @IsBoolean()
  evenIfSigned!: boolean;
}

/** What became of the names: what was changed, and why others were not. */
export interface NameServersChanged extends Done {
  readonly problems: readonly { readonly name: string; readonly problem: string }[];
}

/**
 * Changes the name servers of names: over the links, where they are set whatever they were, so that it may be done again; by hand where
 * there is no link. A zone that is signed is left out unless its keys stay (RFC 6781 section 4.3.5): else it would stop resolving.
 */
export const changeNameServers = command(
  'changeNameServers',
  async (deps: Deps, input: unknown): Promise<NameServersChanged | Refusal> => {
    const request = await readRequest(ChangeNameServers, input);
    if (isRefusal(request)) return request;
    const hosts = readHosts(request.hosts);
    if (isRefusal(hosts)) return hosts;
    const names = await selectNamesAt(deps.database, request.nameIds);
    const turn = pLimit(AT_ONCE);
    const isSigned = request.evenIfSigned ? null : await signedness(deps, names);
    const signed = names.filter(({ ascii }) => isSigned?.get(ascii) === true);
    if (signed.length > 0)
      return refuse(
        'zone-signed',
        `${signed[0]?.unicode}${signed.length > 1 ? ` and ${signed.length - 1} more are` : ' is'} signed. Take the delegation signers (DS) away first and wait a day, or say that the new servers show the same keys.`,
      );
    const links = new Map<number, Promise<RegistrarLink | null>>();
    const linkAt = (accountId: number) => {
      const known = links.get(accountId) ?? linkOf(deps, accountId);
      links.set(accountId, known);
      return known;
    };
    const went = await Promise.all(
      names.map((name) =>
        turn(async () => {
          const link = await linkAt(name.accountId);
          const problem =
            // What has been done by hand is taken down as it is.
            link && isSigned?.get(name.ascii) === null
              ? NOT_KNOWN_WHETHER_SIGNED
              : await changeOne(link, name, hosts, request);
          return { name, problem, evidence: link ? 'the registrar’s answer' : 'set by hand at the registrar' };
        }),
      ),
    );
    const done = went.filter(({ problem }) => problem === null);
    const patches = done.map(
      ({ name, evidence }): PatchedName => ({ nameId: name.id, patch: { name_servers: hosts }, evidence }),
    );
    const summary = `Set the name servers of ${done.length === 1 ? 'one name' : `${done.length} names`}`;
    const changed = await changing(deps, (_tx, change) => change.names('name servers', summary, patches));
    const problems = went.flatMap(({ name, problem }) => (problem === null ? [] : [{ name: name.unicode, problem }]));
    return { ...changed, problems };
  },
);

const NOT_KNOWN_WHETHER_SIGNED =
  'whether it is signed is not known: check its record, or say that the new servers show the same keys';

/** Whether zones are signed, by their records, or else by their delegation as the name server that is set shows it; `null` where neither tells. */
async function signedness(deps: Deps, names: readonly NameAtAccount[]): Promise<Map<string, boolean | null>> {
  const told = new Map<string, boolean>();
  const all = names.map(({ ascii }) => ascii);
  for (const { ascii, record } of await selectNewestRecords(deps.database, all)) {
    const isSigned = record.ds.length > 0 ? true : record.signed;
    if (isSigned !== null) told.set(ascii, told.get(ascii) === true || isSigned);
  }
  const server = dnsServer((await selectSettings(deps.database)).records);
  const turn = pLimit(AT_ONCE);
  const look = async (ascii: string) => {
    const known = told.get(ascii);
    if (known !== undefined || server === null) return [ascii, known ?? null] as const;
    const seen = await lookAtDelegation(server, ascii).catch((error: unknown) => {
      deps.log.warn({ err: error, name: ascii }, 'a delegation could not be looked at');
      return null;
    });
    return [ascii, seen && seen.signers.length > 0] as const;
  };
  return new Map(await Promise.all(all.map((ascii) => turn(() => look(ascii)))));
}

/** Sets the servers of one name; `null` when it is done. */
async function changeOne(
  link: RegistrarLink | null,
  { ascii }: NameAtAccount,
  hosts: readonly string[],
  { byHand }: ChangeNameServers,
): Promise<string | null> {
  if (!link) return byHand ? null : 'its account has no link: set them at the registrar';
  const held = await link.info(ascii);
  if (held.kind !== 'done') return held.kind === 'refused' ? held.reason : 'the registrar did not answer';
  const before = held.value.nameServers.map((host) => host.toLowerCase());
  const add = hosts.filter((host) => !before.includes(host));
  const remove = before.filter((host) => !hosts.includes(host));
  if (add.length === 0 && remove.length === 0) return null;
  const outcome = await link.change(ascii, { nameServers: { add, remove } }, `NL-${randomUUID()}`);
  if (outcome.kind === 'done') return null;
  if (outcome.kind === 'pending') return 'the registrar has taken it and will do it later';
  return outcome.kind === 'refused' ? outcome.reason : 'the registrar did not answer';
}
