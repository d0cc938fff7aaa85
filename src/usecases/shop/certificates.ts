import { askForCertificate, newAccountKey } from '@/connectors/acme/certificate';
import { addDays } from '@/core/time';
import {
  claimCertificate,
  countCertificates,
  deleteChallenge,
  insertCertificateAccount,
  insertChallenge,
  selectCertificate,
  selectCertificateAccount,
  selectChallenge,
  selectHostsToCertify,
  setCertificate,
  setCertificateProblem,
} from '@/database/certificates';
import { sealPlace } from '@/database/secrets';
import { type Settings, selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { itself } from '../people/command';
import { type SealKey, seal, unseal } from '../secrets/seal';
import { alsoLeads } from './shows';
import { shopKey } from './taking';

/** A certificate is asked for anew so long before it ends, and after a failure not before so long. */
const RENEW_DAYS = 30;
const AGAIN_DAYS = 1;
/** So many at a time: servers limit how many they give (RFC 8555 section 6.6). */
const MOST_AT_ONCE = 20;

type Acme = NonNullable<Settings['shop']['acme']>;

/** Asks for the certificates of windows that show, and of buyers' own pages, in good time before the old ones end. Answers how many came. */
export const renewCertificates = itself(async (deps: Deps): Promise<number> => {
  const { shop, records } = await selectSettings(deps.database);
  const key = shopKey(deps);
  const { acme, url } = shop;
  if (acme === null || key === null) return 0;
  const own = url?.startsWith('https:') ? [new URL(url).hostname] : [];
  const now = deps.clock();
  const [lastsUntil, triedBefore] = [addDays(now, RENEW_DAYS), addDays(now, -AGAIN_DAYS)];
  let came = 0;
  for (const host of await selectHostsToCertify(deps.database, own, lastsUntil, triedBefore, MOST_AT_ONCE)) {
    const id = await claimCertificate(deps.database, host, now, triedBefore);
    if (id !== null && (await certify(deps, acme, key, { id, host }, records.allowedHosts))) came += 1;
  }
  return came;
});

async function certify(
  deps: Deps,
  acme: Acme,
  key: SealKey,
  { id, host }: { readonly id: number; readonly host: string },
  allowedHosts: readonly string[],
): Promise<boolean> {
  try {
    const {
      chain,
      key: own,
      notAfter,
    } = await askForCertificate({
      directory: acme.directory,
      accountKey: await accountKey(deps, acme.directory, key),
      mail: acme.mail,
      hosts: (await alsoLeads(deps, `www.${host}`)) ? [host, `www.${host}`] : [host],
      allowedHosts,
      show: (token, answer) => insertChallenge(deps.database, token, answer, deps.clock()),
      hide: (token) => deleteChallenge(deps.database, token),
    });
    await setCertificate(deps.database, id, {
      chain,
      keySealed: await seal(key, sealPlace.certificate(id), own),
      notAfter,
    });
    return true;
  } catch (error) {
    deps.log.warn({ err: error, host }, 'a certificate could not be had');
    const why = error instanceof Error ? error.message : 'no reason given';
    await setCertificateProblem(deps.database, id, why.slice(0, 400));
    return false;
  }
}

/** The key of the office's account at a server, made when it is asked for the first time. */
async function accountKey(deps: Deps, directory: string, key: SealKey): Promise<string> {
  const read = async () => {
    const known = await selectCertificateAccount(deps.database, directory);
    return known && unseal(key, sealPlace['certificate account'](known.id), known.keySealed);
  };
  const known = await read();
  if (known) return known;
  const made = await newAccountKey();
  await insertCertificateAccount(deps.database, directory, (id) =>
    seal(key, sealPlace['certificate account'](id), made),
  );
  const kept = await read();
  if (!kept) throw new Error('the key of the account there was sealed with another key');
  return kept;
}

/** A host's certificate with its key, PEM; `null` for a host without one. */
export async function certificateOf(
  deps: Deps,
  host: string,
): Promise<{ readonly chain: string; readonly key: string } | null> {
  const sealKey = shopKey(deps);
  const row = await selectCertificate(deps.database, host.toLowerCase());
  if (sealKey === null || row === null || row.chain === null || row.keySealed === null) return null;
  const key = await unseal(sealKey, sealPlace.certificate(row.id), row.keySealed);
  return key === null ? null : { chain: row.chain, key };
}

/** What a window answers to a server that looks whether its host is ours. */
export function challengeAnswer(deps: Deps, token: string): Promise<string | null> {
  return selectChallenge(deps.database, token);
}

export type Certificates = Awaited<ReturnType<typeof countCertificates>>;

/** How many certificates are held, and what stands against others. */
export function certificates(deps: Deps): Promise<Certificates> {
  return countCertificates(deps.database);
}
