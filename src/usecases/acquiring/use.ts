import { lookAtSite } from '@/connectors/http/site';
import { askDns, type DnsServer } from '@/connectors/records/dnsClient';
import { type Refusal, refuse } from '@/core/refusal';
import { selectSettings } from '@/database/settings';
import { type UseSeen, upsertUse } from '@/database/usesSeen';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { dnsServer } from '../records/servers';

export type { UseSeen } from '@/database/usesSeen';

/** Looks whether a name is in use: name servers, a site that answers, a mail server. Kept with the instant. */
export const lookAtUse = command('lookAtUse', async (deps: Deps, ascii: string): Promise<UseSeen | Refusal> => {
  const { records } = await selectSettings(deps.database);
  const dns = dnsServer(records);
  if (dns === null)
    return refuse('no-name-server', 'No name server is set to be asked. Name one under Setup → Records.');
  const [ns, mx, a] = await Promise.all((['NS', 'MX', 'A'] as const).map((type) => answersOf(dns, ascii, type)));
  const address = a?.[0];
  const seen: UseSeen = {
    ascii,
    lookedAt: deps.clock(),
    hasNameServers: ns ? ns.length > 0 : null,
    site: typeof address === 'string' ? await lookAtSite(address, ascii, records) : null,
    takesMail: mx ? mx.length > 0 : null,
  };
  await upsertUse(deps.database, seen);
  return seen;
});

/** The data of the records of one type; `null` where the name server gave no answer, which says neither yes nor no. */
async function answersOf(dns: DnsServer, ascii: string, type: 'NS' | 'MX' | 'A'): Promise<unknown[] | null> {
  try {
    const { answers = [] } = await askDns(dns, ascii, type);
    return answers.flatMap((answer) => (answer.type === type && 'data' in answer ? [answer.data] : []));
  } catch {
    return null;
  }
}
