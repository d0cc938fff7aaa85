import { type NextRequest, NextResponse } from 'next/server';

/** Every page gets a content security policy with a nonce of its own. Who is let in at all is decided in `src/server/guard.ts`. */
export function proxy(request: NextRequest): NextResponse {
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const dev = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ''}`,
    ...(dev
      ? ["style-src 'self' 'unsafe-inline'"]
      : [`style-src 'self' 'nonce-${nonce}'`, "style-src-attr 'unsafe-inline'"]),
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  // Whoever comes in by a link sees nothing of the ledger, even where nobody needs to sign in yet.
  headers.set('x-doorway', /^\/(sign-in|invited)(\/|$)/.test(request.nextUrl.pathname) ? 'yes' : 'no');
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

// Pages only: the framework holds the body of whatever passes here in memory, and cuts it when it is long.
export const config = {
  matcher: ['/((?!api/|_next/|favicon.ico|ledger/data|ledger/add/begin|selling/data).*)'],
};
