/** The entity of RFC 9083 section 5.1. */
export const RFC9083_ENTITY = {
  objectClassName: 'entity',
  handle: 'XXXX',
  vcardArray: [
    'vcard',
    [
      ['version', {}, 'text', '4.0'],
      ['fn', {}, 'text', 'Joe User'],
      ['n', {}, 'text', ['User', 'Joe', '', '', ['ing. jr', 'M.Sc.']]],
      ['kind', {}, 'text', 'individual'],
      ['lang', { pref: '1' }, 'language-tag', 'fr'],
      ['lang', { pref: '2' }, 'language-tag', 'en'],
      ['org', { type: 'work' }, 'text', 'Example'],
      ['title', {}, 'text', 'Research Scientist'],
      ['role', {}, 'text', 'Project Lead'],
      [
        'adr',
        { type: 'work' },
        'text',
        ['', 'Suite 1234', '4321 Rue Somewhere', 'Quebec', 'QC', 'G1V 2M2', 'Canada'],
      ],
      [
        'adr',
        { type: 'home', label: '123 Maple Ave\nSuite 90001\nVancouver\nBC\n1239\n' },
        'text',
        ['', '', '', '', '', '', ''],
      ],
      ['tel', { type: ['work', 'voice'], pref: '1' }, 'uri', 'tel:+1-555-555-1234;ext=102'],
      ['tel', { type: ['work', 'cell', 'voice', 'video', 'text'] }, 'uri', 'tel:+1-555-555-4321'],
      ['email', { type: 'work' }, 'text', 'joe.user@example.com'],
      ['geo', { type: 'work' }, 'uri', 'geo:46.772673,-71.282945'],
      ['key', { type: 'work' }, 'uri', 'https://www.example.com/joe.user/joe.asc'],
      ['tz', {}, 'utc-offset', '-05:00'],
      ['url', { type: 'home' }, 'uri', 'https://example.org'],
    ],
  ],
  roles: ['registrar'],
  publicIds: [{ type: 'IANA Registrar ID', identifier: '1' }],
  remarks: [
    { description: ['She sells sea shells down by the sea shore.', 'Originally written by Terry Sullivan.'] },
  ],
  links: [
    {
      value: 'https://example.com/entity/XXXX',
      rel: 'self',
      href: 'https://example.com/entity/XXXX',
      type: 'application/rdap+json',
    },
  ],
  events: [{ eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' }],
  asEventActor: [{ eventAction: 'last changed', eventDate: '1991-12-31T23:59:59Z' }],
};

/** The name server of RFC 9083 section 5.2. */
export const RFC9083_NAMESERVER = {
  objectClassName: 'nameserver',
  handle: 'XXXX',
  ldhName: 'ns1.xn--fo-5ja.example',
  unicodeName: 'ns.fóo.example',
  status: ['active'],
  ipAddresses: { v4: ['192.0.2.1', '192.0.2.2'], v6: ['2001:db8::123'] },
  remarks: [
    { description: ['She sells sea shells down by the sea shore.', 'Originally written by Terry Sullivan.'] },
  ],
  links: [
    {
      value: 'https://example.net/nameserver/ns1.xn--fo-5ja.example',
      rel: 'self',
      href: 'https://example.net/nameserver/ns1.xn--fo-5ja.example',
      type: 'application/rdap+json',
    },
  ],
  port43: 'whois.example.net',
  events: [
    { eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' },
    { eventAction: 'last changed', eventDate: '1991-12-31T23:59:59Z', eventActor: 'joe@example.com' },
  ],
};

/** The error of RFC 9083 section 6. */
export const RFC9083_ERROR = {
  errorCode: 418,
  title: 'Your Beverage Choice is Not Available',
  description: ['I know coffee has more ummppphhh.', 'Sorry, dude!'],
};

/** The help of RFC 9083 section 7. */
export const RFC9083_HELP = {
  rdapConformance: ['rdap_level_0'],
  notices: [
    {
      title: 'Authentication Policy',
      description: ['Access to sensitive data for users with proper credentials.'],
      links: [
        {
          value: 'https://example.net/help',
          rel: 'alternate',
          type: 'text/html',
          href: 'https://www.example.com/auth_policy.html',
        },
      ],
    },
  ],
};
