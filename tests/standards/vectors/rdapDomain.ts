/** The domain object of RFC 9083 section 5.3, shortened in its remarks and notices only. */
export const RFC9083_DOMAIN: unknown = {
  rdapConformance: ['rdap_level_0'],
  objectClassName: 'domain',
  handle: 'XXXX',
  ldhName: 'xn--fo-5ja.example',
  unicodeName: 'fóo.example',
  variants: [
    {
      relation: ['registered', 'conjoined'],
      variantNames: [{ ldhName: 'xn--fo-cka.example', unicodeName: 'fõo.example' }],
    },
  ],
  status: ['locked', 'server hold'],
  publicIds: [{ type: 'ENS_Auth ID', identifier: '1234567890' }],
  nameservers: [
    {
      objectClassName: 'nameserver',
      handle: 'XXXX',
      ldhName: 'ns1.example.com',
      status: ['active'],
      ipAddresses: { v6: ['2001:db8::123', '2001:db8::124'], v4: ['192.0.2.1', '192.0.2.2'] },
    },
    { objectClassName: 'nameserver', handle: 'XXXX', ldhName: 'ns2.example.com', status: ['active'] },
  ],
  secureDNS: {
    zoneSigned: true,
    delegationSigned: true,
    maxSigLife: 604800,
    keyData: [{ flags: 257, protocol: 3, algorithm: 1, publicKey: 'AQPJ////4Q==' }],
    dsData: [{ keyTag: 12345, algorithm: 3, digestType: 1, digest: '49FD46E6C4B45C55D4AC' }],
  },
  remarks: [{ description: ['She sells sea shells down by the sea shore.'] }],
  links: [
    {
      value: 'https://example.net/domain/xn--fo-5ja.example',
      rel: 'self',
      href: 'https://example.net/domain/xn--fo-5ja.example',
      type: 'application/rdap+json',
    },
  ],
  port43: 'whois.example.net',
  events: [
    { eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' },
    { eventAction: 'last changed', eventDate: '1991-12-31T23:59:59Z', eventActor: 'joe@example.com' },
  ],
  entities: [
    {
      objectClassName: 'entity',
      handle: 'XXXX',
      vcardArray: [
        'vcard',
        [
          ['version', {}, 'text', '4.0'],
          ['fn', {}, 'text', 'Joe User'],
          ['kind', {}, 'text', 'individual'],
          ['lang', { pref: '1' }, 'language-tag', 'fr'],
          ['org', { type: 'work' }, 'text', 'Example'],
          ['title', {}, 'text', 'Research Scientist'],
          ['adr', { type: 'work' }, 'text', ['', 'Suite 1234', '4321 Rue Somewhere', 'Quebec', 'QC', 'G1V 2M2', 'Canada']],
          ['tel', { type: ['work', 'voice'], pref: '1' }, 'uri', 'tel:+1-555-555-1234;ext=102'],
          ['email', { type: 'work' }, 'text', 'joe.user@example.com'],
        ],
      ],
      status: ['validated', 'locked'],
      roles: ['registrant'],
      events: [{ eventAction: 'registration', eventDate: '1990-12-31T23:59:59Z' }],
    },
  ],
  network: {
    objectClassName: 'ip network',
    handle: 'XXXX-RIR',
    startAddress: '2001:db8::',
    endAddress: '2001:db8:0:ffff:ffff:ffff:ffff:ffff',
    ipVersion: 'v6',
    name: 'NET-RTR-1',
    type: 'DIRECT ALLOCATION',
    country: 'AU',
    parentHandle: 'YYYY-RIR',
    status: ['active'],
  },
};
