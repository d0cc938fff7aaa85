/** Headers of every answer. Pages set their own content security policy on top (src/proxy.ts). */
const EVERYWHERE: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'cross-origin-opener-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'permissions-policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
};

/** What is read by programs: never kept by a cache on the way, never shown as a page. */
const FOR_PROGRAMS: Readonly<Record<string, string>> = {
  'cache-control': 'no-store',
  'content-security-policy': "default-src 'none'; frame-ancestors 'none'; sandbox",
};

/** The headers with which an answer to `path` begins; a route may set others. Source: ASVS 5 chapter V3.4. */
export function answerHeaders(path: string): Readonly<Record<string, string>> {
  return path.startsWith('/api/') ? { ...EVERYWHERE, ...FOR_PROGRAMS } : EVERYWHERE;
}
