import { mayAsk } from '@/connectors/http/addresses';
import { lookAtOwnZone } from '@/connectors/records/dnsClient';
import { seenOf } from '@/core/moving';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import {
  noteChecked,
  type StoredRecord,
  selectNewestRecords,
  selectRecordHistory,
  storeRecords,
} from '@/database/records';
import { selectSettings } from '@/database/settings';
import { readRdapDomain } from '@/formats/rdap/readRdap';
import { readWhois } from '@/formats/whois/readWhois';
import { writeZone, type Zone } from '@/formats/zone/zoneFile';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { draftOf } from './ask';
import { PastedRecord } from './requests';
import { dnsServer } from './servers';

export type { StoredRecord } from '@/database/records';

/** The newest records of a name, by source. */
export function newestRecords(deps: Deps, ascii: string): Promise<StoredRecord[]> {
  return selectNewestRecords(deps.database, [ascii]);
}

/** Every dated record of a name, newest first, each with its raw text. */
export function recordHistory(deps: Deps, ascii: string): Promise<(StoredRecord & { raw: string })[]> {
  return selectRecordHistory(deps.database, ascii);
}

/** Reads a record that was pasted, RDAP or WHOIS, and keeps it like any other. Answers the name it is about. */
export const pasteRecord = command('pasteRecord', async (deps: Deps, input: unknown): Promise<string | Refusal> => {
  const request = await readRequest(PastedRecord, input);
  if (isRefusal(request)) return request;
  const name = parseDomainName(request.name);
  if (isRefusal(name)) return name;
  const text = request.text.trim();
  const record = text.startsWith('{') ? fromJson(text, name.ascii) : readWhois(text, name.ascii);
  if (!record)
    return refuse(
      'record-unreadable',
      `This is no record of ${name.unicode}. Paste the whole answer of RDAP or WHOIS.`,
      'text',
    );
  const draft = draftOf(name.ascii, 'pasted', record, text, null);
  await changing(deps, async (tx, { at }) => {
    await storeRecords(tx, [draft], at);
    await noteChecked(tx, [seenOf(name.ascii, [record])], at);
  });
  return name.unicode;
});

function fromJson(text: string, ascii: string) {
  try {
    return readRdapDomain(JSON.parse(text), ascii);
  } catch {
    return null;
  }
}

/** The zone of a name as its own name servers show it now, or the one that is set does, as a master file. */
export async function seenZone(
  deps: Deps,
  ascii: string,
): Promise<{ zone: Zone; text: string; at: Instant; from: string | null } | Refusal> {
  const { records } = await selectSettings(deps.database);
  const server = dnsServer(records);
  if (!server) return refuse('no-name-server', 'No name server is set to ask. Set one under Setup → Records.');
  try {
    const seen = await lookAtOwnZone(server, ascii, (address) => mayAsk(address, records.allowedHosts));
    const zone = { origin: ascii, records: seen.records };
    return { zone, text: writeZone(zone), at: deps.clock(), from: seen.from };
  } catch (error) {
    deps.log.warn({ err: error }, 'a zone could not be looked at');
    return refuse('name-server-away', 'The name server did not answer. Try again later.');
  }
}
