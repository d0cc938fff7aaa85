import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsOptional, IsString, Matches, MaxLength } from 'class-validator';
import type { DnsServer } from '@/connectors/records/dnsClient';
import { askRdapAt } from '@/connectors/records/rdapClient';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type RecordServers, selectSettings, upsertSettings } from '@/database/settings';
import { readBootstrap } from '@/formats/rdap/bootstrap';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';

/** The name server that is asked, or `null` when none is set. */
export function dnsServer({ dns }: Pick<RecordServers, 'dns'>): DnsServer | null {
  const [host, port] = (dns ?? '').split(':');
  return host ? { host, port: Number(port ?? 53) } : null;
}

const HOST = /^[a-z0-9.-]{1,253}(?::\d{1,5})?$/i;

/** Where registration records are asked for. */
export class RecordServersForm {
  /** The bootstrap file (RFC 9224) as text; empty leaves it as it is. */
  @IsOptional()
  @IsString()
  @MaxLength(1_000_000)
  bootstrap?: string;

  /** Lines of `ending host:port`. */
  @IsArray()
  @ArrayMaxSize(2000)
  @Matches(/^\.?[a-z0-9.-]+\s+[a-z0-9.-]+(:\d{1,5})?$/i, {
    each: true,
    message: 'Write a line for each ending, like “uk whois.registry.example”.',
  })
  @Type(() => String)
  whois!: string[];

  @IsOptional()
  @IsString()
  @Matches(/^$|^[a-z0-9.-]{1,253}(:\d{1,5})?$/i, { message: 'Write the name server like 192.0.2.53:53.' })
  dns?: string;

  @IsArray()
  @ArrayMaxSize(50)
  @Matches(HOST, { each: true, message: 'Write hosts without a path, like registry.example.' })
  @Type(() => String)
  allowedHosts!: string[];
}

/** Sets where registration records are asked for. A new bootstrap file is read before it takes the old one's place. */
export const saveRecordServers = command(
  'saveRecordServers',
  async (deps: Deps, input: unknown): Promise<true | Refusal> => {
    const form = await readRequest(RecordServersForm, input);
    if (isRefusal(form)) return form;
    const { records } = await selectSettings(deps.database);
    let { bootstrap } = records;
    if (form.bootstrap?.trim()) {
      const file = parsed(form.bootstrap);
      if (readBootstrap(file) === null)
        return refuse(
          'bootstrap-unreadable',
          'This is no bootstrap file of RFC 9224. Paste the whole file.',
          'bootstrap',
        );
      bootstrap = file;
    }
    const whois = Object.fromEntries(
      form.whois.map((line) => {
        const [ending = '', server = ''] = line.trim().split(/\s+/);
        return [ending.replace(/^\./, '').toLowerCase(), server];
      }),
    );
    const set = { bootstrap, whois, dns: form.dns?.trim() || null, allowedHosts: form.allowedHosts };
    await changing(deps, (tx) => upsertSettings(tx, { records: set }));
    return true;
  },
);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** Fetches a bootstrap file from an address that is named, and puts it in the place of the old one. Answers its date. */
export const fetchBootstrap = command(
  'fetchBootstrap',
  async (deps: Deps, address: string): Promise<string | Refusal> => {
    const { records } = await selectSettings(deps.database);
    if (!URL.canParse(address)) return refuse('address-invalid', 'Write the whole address, with https.', 'address');
    const answer = await askRdapAt(address, { allowedHosts: records.allowedHosts });
    const file = answer.kind === 'found' ? readBootstrap(answer.json) : null;
    if (answer.kind !== 'found' || file === null)
      return refuse('bootstrap-unreadable', 'No bootstrap file of RFC 9224 could be fetched there.', 'address');
    await changing(deps, (tx) => upsertSettings(tx, { records: { ...records, bootstrap: answer.json } }));
    return file.publication ?? 'without a date';
  },
);
