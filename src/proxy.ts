import { type NextRequest, NextResponse } from 'next/server';

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/**
 * Every page gets a content security policy with a nonce of its own. Requests under a foreign host name are refused, since
 * the program serves this machine only and a page elsewhere must not reach it by another name.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  if (!LOOPBACK.test(host) || (origin !== null && origin !== 'null' && new URL(origin).host !== host)) {
    return new NextResponse('This program answers on its own machine only.\n', { status: 403 });
  }
  if (request.nextUrl.pathname.startsWith('/api/')) return NextResponse.next();
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
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-content-type-options', 'nosniff');
  return response;
}

export const config = {
  matcher: [
    {
      source: '/((?!_next/static|_next/image|favicon.ico).*)',
      missing: [{ type: 'header', key: 'next-router-prefetch' }],
    },
  ],
};
