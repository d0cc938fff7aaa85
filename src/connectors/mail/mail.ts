import { createTransport } from 'nodemailer';

/** A mail in both forms: plain text, and HTML that reads on a telephone. */
export interface Mail {
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly html: string;
}

/** Where mail is handed over. */
export interface MailServer {
  readonly host: string;
  readonly port: number;
  readonly user: string | null;
  readonly password: string | null;
}

/** Hands one mail to an SMTP server. Throws when it does not take it. */
export async function sendMail({ host, port, user, password }: MailServer, mail: Mail): Promise<void> {
  const transport = createTransport({
    host,
    port,
    secure: port === 465,
    connectionTimeout: 10_000,
    ...(user ? { auth: { user, pass: password ?? '' } } : {}),
  });
  try {
    await transport.sendMail(mail);
  } finally {
    transport.close();
  }
}
