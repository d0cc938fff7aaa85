import { sendMail } from '@/connectors/mail/mail';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { unseal } from '../secrets/seal';

/** Sends the office a plain mail, its lines made with the address of this program. False where no mail server is set. */
export async function mailOffice(
  deps: Deps,
  subject: string,
  linesOf: (base: string) => readonly string[],
): Promise<boolean> {
  const { mail, baseUrl, records } = await selectSettings(deps.database);
  if (!mail) return false;
  const password =
    mail.sealedPassword && deps.key
      ? await unseal(deps.key, sealPlace.mail(), Buffer.from(mail.sealedPassword, 'base64'))
      : null;
  const text = `${linesOf(baseUrl.replace(/\/$/, '')).join('\n\n')}\n`;
  await sendMail(
    { ...mail, password, allowedHosts: records.allowedHosts },
    { from: mail.from, to: mail.to, subject, text, html: null },
  );
  return true;
}
