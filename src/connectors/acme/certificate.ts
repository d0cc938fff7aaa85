import acme from 'acme-client';
import { mayAsk } from '../http/addresses';

/** Whom a certificate is asked of, and how it is shown that the hosts are ours. */
export interface CertificateAsked {
  /** The server's directory (RFC 8555 section 7.1.1). */
  readonly directory: string;
  /** Our account's key there, PEM. */
  readonly accountKey: string;
  /** Where the server writes to about what goes wrong. */
  readonly mail: string;
  readonly hosts: readonly string[];
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
  /** Shows `answer` at `/.well-known/acme-challenge/TOKEN` of every host (section 8.3). */
  show(token: string, answer: string): Promise<void>;
  hide(token: string): Promise<void>;
}

export interface Certificate {
  /** PEM, the leaf first. */
  readonly chain: string;
  /** PEM. */
  readonly key: string;
  readonly notAfter: Date;
}

/** A key for an account, PEM. */
export async function newAccountKey(): Promise<string> {
  return (await acme.crypto.createPrivateEcdsaKey()).toString();
}

/** Asks for a certificate by HTTP challenge. Throws, with the server's reason, when it gives none. */
export async function askForCertificate(asked: CertificateAsked): Promise<Certificate> {
  const { hostname } = new URL(asked.directory);
  if (!mayAsk(hostname, asked.allowedHosts)) throw new Error(`${hostname} is not at a public address`);
  const client = new acme.Client({
    directoryUrl: asked.directory,
    accountKey: asked.accountKey,
    backoffAttempts: 8,
    backoffMin: 500,
    backoffMax: 5000,
  });
  const [key, csr] = await acme.crypto.createCsr(
    { commonName: asked.hosts[0] ?? '', altNames: [...asked.hosts] },
    await acme.crypto.createPrivateEcdsaKey(),
  );
  const chain = await client.auto({
    csr,
    email: asked.mail,
    termsOfServiceAgreed: true,
    // The server looks itself: whether our own view of DNS sees it too decides nothing.
    skipChallengeVerification: true,
    challengePriority: ['http-01'],
    challengeCreateFn: (_, { token }, answer) => asked.show(token, answer),
    challengeRemoveFn: (_, { token }) => asked.hide(token),
  });
  return { chain, key: key.toString(), notAfter: acme.crypto.readCertificateInfo(chain).notAfter };
}
