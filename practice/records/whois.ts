import { createServer, type Server } from 'node:net';
import type { Faults } from '../epp/faults';
import { dateOf } from '../world/calendar';
import type { World } from '../world/types';
import { REGISTRAR_IDS, type Told, tell } from './truth';

/**
 * WHOIS (RFC 3912) for the endings without RDAP: a registry's, in the layouts of their countries, that refers to the registrars'
 * where its layout can; or the one that all registrars here share.
 */
export function whoisServer(
  world: World,
  faults: Faults,
  who: 'registry' | 'registrar',
  registrars: () => string,
): Server {
  return createServer((socket) => {
    let asked = '';
    socket.on('error', () => socket.destroy());
    socket.on('data', (piece) => {
      asked += piece.toString('utf8');
      if (!asked.includes('\n')) return;
      const name = asked.trim().toLowerCase();
      const fault = faults.strike('records', ['slow', 'cut', 'garbage', 'busy']);
      if (fault === 'slow') return;
      if (fault === 'busy') socket.end('Query rate exceeded. Try again later.\r\n');
      else if (fault === 'garbage') socket.end('\u0000\u0001 nothing of the sort');
      else {
        const told = tell(world, name, who);
        const layout = () => {
          if (told === null) return 'No match for this name.\n';
          if (who === 'registrar') return `${keys(told)}Registrant Name: ${told.holder ?? 'REDACTED FOR PRIVACY'}\n`;
          return name.endsWith('.uk') ? headings(told) : `${keys(told)}Registrar WHOIS Server: ${registrars()}\n`;
        };
        const text = layout();
        if (fault === 'cut') socket.destroy();
        else socket.end(text.replace(/\n/g, '\r\n'));
      }
    });
  });
}

/** Keys and values, as most registries write them. */
function keys(told: Told): string {
  return `Domain: ${told.name}
Registrar: ${told.registrar.title}
Registrar IANA ID: ${REGISTRAR_IDS[told.registrar.id]}
Creation Date: ${new Date(told.createdAt).toISOString()}
Registry Expiry Date: ${new Date(told.expires).toISOString()}
Updated Date: ${new Date(told.changed).toISOString()}
${told.statuses.map((status) => `Domain Status: ${status}`).join('\n')}
${told.nameServers.map((host) => `Nserver: ${host}`).join('\n')}
${told.signer ? `DNSSEC: signedDelegation\nDNSSEC DS Data: ${told.signer}` : 'DNSSEC: unsigned'}
`;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const day = (at: number) => {
  const [year, month, date] = dateOf(at).split('-');
  return `${date}-${MONTHS[Number(month) - 1]}-${year}`;
};

/** Headings with their values indented below. */
function headings(told: Told): string {
  return `
    Domain name:
        ${told.name}

    Registrar:
        ${told.registrar.title} [Tag = ${told.registrar.id.toUpperCase()}]

    Relevant dates:
        Registered on: ${day(told.createdAt)}
        Expiry date:  ${day(told.expires)}
        Last updated:  ${day(told.changed)}

    Registration status:
        ${told.statuses.join('\n        ')}

    Name servers:
        ${told.nameServers.join('\n        ')}
`;
}
