import { createHash, createPublicKey, randomBytes, verify, webcrypto } from 'node:crypto';
import { createServer, get, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import * as x509 from '@peculiar/x509';

/** What a certificate authority keeps of an order (RFC 8555 section 7.1.3). */
interface Order {
  readonly id: string;
  readonly account: string;
  readonly hosts: readonly string[];
  /** For each host the token of its challenge, and whether that was seen. */
  readonly challenges: { readonly token: string; status: 'pending' | 'valid' | 'invalid'; problem?: string }[];
  status: 'pending' | 'ready' | 'valid' | 'invalid';
  chain?: string;
}

type Jwk = { kty: string; crv?: string; x?: string; y?: string; n?: string; e?: string };
interface Signed {
  readonly header: { alg: string; nonce: string; url: string; jwk?: Jwk; kid?: string };
  readonly payload: Record<string, unknown> | null;
}

const DAYS = 90;
const MOST_BYTES = 100_000;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;

class Problem extends Error {
  constructor(
    readonly kind: string,
    message: string,
    readonly status = 400,
  ) {
    super(message);
  }
}

/**
 * A practice certificate authority that speaks ACME (RFC 8555): accounts, orders, HTTP challenges, certificates of its own root. Hosts of the
 * practice world have no address: challenges are looked for at `shopPort` of this machine, under the host's name.
 */
export class PracticeAuthority {
  private readonly nonces = new Set<string>();
  private readonly accounts = new Map<string, Jwk>();
  private readonly orders = new Map<string, Order>();
  private root: Promise<{ certificate: x509.X509Certificate; keys: webcrypto.CryptoKeyPair }> | null = null;
  /** How often something was asked, by path. */
  readonly asked: string[] = [];

  constructor(
    private readonly shopPort: () => number,
    private readonly now: () => number,
  ) {
    x509.cryptoProvider.set(webcrypto as unknown as Crypto);
  }

  server(): Server {
    return createServer((request, response) => {
      void this.answer(request, response).catch((error: unknown) => {
        const problem = error instanceof Problem ? error : new Problem('serverInternal', String(error), 500);
        this.send(response, problem.status, {
          type: `urn:ietf:params:acme:error:${problem.kind}`,
          detail: problem.message,
        });
      });
    });
  }

  /** The root by which its certificates are told to be good, PEM. */
  async rootPem(): Promise<string> {
    return (await this.ownRoot()).certificate.toString('pem');
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const base = `http://${request.headers.host}`;
    const path = request.url ?? '/';
    this.asked.push(path);
    if (path === '/directory')
      return this.send(response, 200, {
        newNonce: `${base}/new-nonce`,
        newAccount: `${base}/new-account`,
        newOrder: `${base}/new-order`,
        revokeCert: `${base}/revoke`,
        keyChange: `${base}/key-change`,
        meta: { termsOfService: `${base}/terms` },
      });
    if (path === '/new-nonce') return this.send(response, request.method === 'HEAD' ? 200 : 204, null);
    const signed = this.check(await bodyOf(request), `${base}${path}`);
    if (path === '/new-account') return this.newAccount(response, base, signed);
    const account = signed.header.kid?.split('/').at(-1) ?? '';
    if (path === '/new-order') return this.newOrder(response, base, account, signed);
    const [, what = '', id = '', place = ''] = path.split('/');
    // Asked by its own key: nothing of an account is ever changed here.
    if (what === 'account' && id === account) return this.send(response, 200, { status: 'valid' });
    const order = this.orders.get(id);
    if (!order || order.account !== account) throw new Problem('malformed', 'There is no such order.', 404);
    if (what === 'order') return this.send(response, 200, this.shown(order, base));
    if (what === 'authz') return this.send(response, 200, this.authorization(order, Number(place), base));
    if (what === 'challenge') return this.challenge(response, order, Number(place), base);
    if (what === 'finalize') return this.finalize(response, order, base, String(signed.payload?.csr ?? ''));
    if (what === 'certificate' && order.chain)
      return this.send(response, 200, order.chain, { 'content-type': 'application/pem-certificate-chain' });
    throw new Problem('malformed', 'There is nothing here.', 404);
  }

  /** Checks the signature, the nonce and the address of a request (section 6). */
  private check(body: string, url: string): Signed {
    const { protected: head, payload, signature } = JSON.parse(body) as Record<string, string>;
    const header = JSON.parse(Buffer.from(head ?? '', 'base64url').toString()) as Signed['header'];
    if (!this.nonces.delete(header.nonce)) throw new Problem('badNonce', 'This nonce is not one of ours, or was used.');
    if (header.url !== url) throw new Problem('unauthorized', 'This was signed for another address.', 401);
    const jwk = header.jwk ?? this.accounts.get(header.kid?.split('/').at(-1) ?? '');
    if (!jwk) throw new Problem('accountDoesNotExist', 'There is no such account.');
    const key = createPublicKey({ key: jwk as never, format: 'jwk' });
    const isGood = verify(
      'sha256',
      Buffer.from(`${head}.${payload}`),
      header.alg === 'ES256' ? { key, dsaEncoding: 'ieee-p1363' } : key,
      Buffer.from(signature ?? '', 'base64url'),
    );
    if (!isGood) throw new Problem('malformed', 'The signature does not hold.');
    return { header, payload: payload ? JSON.parse(Buffer.from(payload, 'base64url').toString()) : null };
  }

  private newAccount(response: ServerResponse, base: string, { header, payload }: Signed): void {
    if (!header.jwk) throw new Problem('malformed', 'A new account is asked for with its key.');
    const id = thumbprint(header.jwk);
    const isNew = !this.accounts.has(id);
    if (isNew && payload?.onlyReturnExisting) throw new Problem('accountDoesNotExist', 'There is no such account.');
    this.accounts.set(id, header.jwk);
    this.send(response, isNew ? 201 : 200, { status: 'valid' }, { location: `${base}/account/${id}` });
  }

  private newOrder(response: ServerResponse, base: string, account: string, { payload }: Signed): void {
    const hosts = ((payload?.identifiers ?? []) as { value: string }[]).map(({ value }) => value);
    if (hosts.length === 0 || hosts.some((host) => host.endsWith('.invalid')))
      throw new Problem('rejectedIdentifier', 'No certificate is given for such a host.');
    const order: Order = {
      id: randomBytes(9).toString('hex'),
      account,
      hosts,
      challenges: hosts.map(() => ({ token: randomBytes(24).toString('base64url'), status: 'pending' })),
      status: 'pending',
    };
    this.orders.set(order.id, order);
    this.send(response, 201, this.shown(order, base), { location: `${base}/order/${order.id}` });
  }

  private shown(order: Order, base: string): object {
    return {
      status: order.status,
      identifiers: order.hosts.map((value) => ({ type: 'dns' as const, value })),
      authorizations: order.hosts.map((_, i) => `${base}/authz/${order.id}/${i}`),
      finalize: `${base}/finalize/${order.id}`,
      ...(order.chain ? { certificate: `${base}/certificate/${order.id}` } : {}),
    };
  }

  private authorization(order: Order, i: number, base: string): object {
    const challenge = order.challenges[i];
    if (!challenge) throw new Problem('malformed', 'There is no such host.', 404);
    return {
      status: challenge.status,
      identifier: { type: 'dns', value: order.hosts[i] },
      challenges: [this.challengeShown(order, i, base)],
    };
  }

  private challengeShown(order: Order, i: number, base: string): object {
    const { token, status, problem } = order.challenges[i] as Order['challenges'][number];
    return {
      type: 'http-01',
      url: `${base}/challenge/${order.id}/${i}`,
      token,
      status,
      ...(problem ? { error: { type: 'urn:ietf:params:acme:error:unauthorized', detail: problem } } : {}),
    };
  }

  /** Looks whether the host shows what only our account can say (section 8.3). */
  private async challenge(response: ServerResponse, order: Order, i: number, base: string): Promise<void> {
    const challenge = order.challenges[i];
    if (!challenge) throw new Problem('malformed', 'There is no such host.', 404);
    const wanted = `${challenge.token}.${thumbprint(this.accounts.get(order.account) as Jwk)}`;
    const seen = await shownAt(this.shopPort(), order.hosts[i] ?? '', challenge.token);
    challenge.status = seen.trim() === wanted ? 'valid' : 'invalid';
    if (challenge.status === 'invalid') challenge.problem = `${order.hosts[i]} does not show the answer.`;
    if (order.challenges.every(({ status }) => status === 'valid')) order.status = 'ready';
    if (challenge.status === 'invalid') order.status = 'invalid';
    this.send(response, 200, this.challengeShown(order, i, base));
  }

  private async finalize(response: ServerResponse, order: Order, base: string, csr: string): Promise<void> {
    if (order.status !== 'ready') throw new Problem('orderNotReady', 'Not every host was seen to be yours.', 403);
    const request = new x509.Pkcs10CertificateRequest(Buffer.from(csr, 'base64url'));
    if (!(await request.verify())) throw new Problem('badCSR', 'The request is not signed by its own key.');
    const names = hostsIn(request);
    if ([...names].sort().join() !== [...order.hosts].sort().join())
      throw new Problem('badCSR', 'The request names other hosts than the order.');
    const root = await this.ownRoot();
    const leaf = await x509.X509CertificateGenerator.create({
      serialNumber: randomBytes(8).toString('hex'),
      subject: `CN=${order.hosts[0]}`,
      issuer: root.certificate.subject,
      notBefore: new Date(this.now() - 3_600_000),
      notAfter: new Date(this.now() + DAYS * 86_400_000),
      signingAlgorithm: ALGORITHM,
      publicKey: request.publicKey,
      signingKey: root.keys.privateKey as CryptoKey,
      extensions: [
        new x509.SubjectAlternativeNameExtension(order.hosts.map((value) => ({ type: 'dns' as const, value }))),
      ],
    });
    order.chain = `${leaf.toString('pem')}\n${root.certificate.toString('pem')}\n`;
    order.status = 'valid';
    this.send(response, 200, this.shown(order, base), { location: `${base}/order/${order.id}` });
  }

  private ownRoot() {
    this.root ??= (async () => {
      const keys = (await webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify'])) as webcrypto.CryptoKeyPair;
      const certificate = await x509.X509CertificateGenerator.createSelfSigned({
        serialNumber: randomBytes(8).toString('hex'),
        name: 'CN=Practice Authority of the Harbour',
        notBefore: new Date(this.now() - 86_400_000),
        notAfter: new Date(this.now() + 3650 * 86_400_000),
        signingAlgorithm: ALGORITHM,
        keys: keys as CryptoKeyPair,
        extensions: [new x509.BasicConstraintsExtension(true, 1, true)],
      });
      return { certificate, keys };
    })();
    return this.root;
  }

  private send(
    response: ServerResponse,
    status: number,
    body: object | string | null,
    headers: Record<string, string> = {},
  ): void {
    const nonce = randomBytes(12).toString('base64url');
    this.nonces.add(nonce);
    const type = status >= 400 ? 'application/problem+json' : 'application/json';
    response.writeHead(status, {
      'replay-nonce': nonce,
      'cache-control': 'no-store',
      'content-type': type,
      ...headers,
    });
    response.end(body === null ? '' : typeof body === 'string' ? body : JSON.stringify(body));
  }
}

/** The hosts that a request is for. */
function hostsIn({ extensions }: x509.Pkcs10CertificateRequest): string[] {
  const named = extensions.find((one) => one instanceof x509.SubjectAlternativeNameExtension);
  return (named as x509.SubjectAlternativeNameExtension | undefined)?.names.items.map(({ value }) => value) ?? [];
}

/** The thumbprint of a key (RFC 7638). */
function thumbprint(jwk: Jwk): string {
  const members =
    jwk.kty === 'EC' ? { crv: jwk.crv, kty: jwk.kty, x: jwk.x, y: jwk.y } : { e: jwk.e, kty: jwk.kty, n: jwk.n };
  return createHash('sha256').update(JSON.stringify(members)).digest('base64url');
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  let body = '';
  for await (const piece of request as AsyncIterable<Buffer>) {
    body += piece.toString();
    if (body.length > MOST_BYTES) throw new Problem('malformed', 'That is too much.', 413);
  }
  return body;
}

/** What a host shows at the address of a challenge; empty when it shows nothing. */
function shownAt(port: number, host: string, token: string): Promise<string> {
  return new Promise((resolve) => {
    const asked = get(
      { host: '127.0.0.1', port, path: `/.well-known/acme-challenge/${token}`, headers: { host }, timeout: 3000 },
      (answer) => {
        let text = '';
        answer.on('data', (piece: Buffer) => {
          text += piece.toString();
        });
        answer.on('end', () => resolve(answer.statusCode === 200 ? text : ''));
      },
    );
    asked.on('timeout', () => asked.destroy());
    asked.on('error', () => resolve(''));
  });
}
