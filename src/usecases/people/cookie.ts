import { SESSION } from '@/core/people';

/** How a browser keeps its session: out of reach of scripts, for this host alone (RFC 6265bis section 4.1.3, ASVS 5 V3.3). */
export function sessionCookie(isSecure: boolean) {
  return {
    name: isSecure ? '__Host-name-ledger' : 'name-ledger',
    options: {
      httpOnly: true,
      secure: isSecure,
      // A link in a mail leads to a page; nothing that is reached so changes anything.
      sameSite: 'lax',
      path: '/',
      maxAge: SESSION.absoluteMs / 1000,
    },
  } as const;
}
