import { sendMail } from '@/connectors/mail/mail';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { unseal } from '../secrets/seal';

/** Sends the office a plain mail, its lines made with the address of this program. False where no mail server is set. */
export function mailOffice(
  deps: Deps,
  subject: string,
  linesOf: (base: string) => readonly string[],
): Promise<boolean> {
  return mail(deps, null, subject, (base) => `${linesOf(base).join('\n\n')}\n`);
}

/** Sends somebody a plain mail in the office's name. False where no mail server is set; throws when it does not take the mail. */
export function mailTo(deps: Deps, to: string, subject: string, text: string): Promise<boolean> {
  return mail(deps, to, subject, () => text);
}

async function mail(
  deps: Deps,
  to: string | null,
  subject: string,
  textWith: (base: string) => string,
): Promise<boolean> {
  const { mail: server, baseUrl, records } = await selectSettings(deps.database);
  if (!server) return false;
  const password =
    server.sealedPassword && deps.key
      ? await unseal(deps.key, sealPlace.mail(), Buffer.from(server.sealedPassword, 'base64'))
      : null;
  const text = textWith(baseUrl.replace(/\/$/, ''));
  await sendMail(
    { ...server, password, allowedHosts: records.allowedHosts },
    { from: server.from, to: to ?? server.to, subject, text, html: null },
  );
  return true;
}
