import { type Refusal, refuse } from '../refusal';

/** A zone has two name servers at least, so that one may fail; more than thirteen fit no answer. Common practice of registries. */
const FEWEST = 2;
const MOST = 13;

const LABEL = '[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?';
/** RFC 952, RFC 1123 section 2.1: letters, digits and hyphens. */
const HOST = new RegExp(`^(?=.{3,253}$)${LABEL}(\\.${LABEL})+$`);

/** Name servers as they are typed or pasted, one a line or separated by commas; each once, in their order. Refuses what is no host. */
export function readHosts(text: string): string[] | Refusal {
  const hosts = [
    ...new Set(
      text
        .toLowerCase()
        .split(/[\s,;]+/)
        .map((one) => one.replace(/\.$/, ''))
        .filter((one) => one !== ''),
    ),
  ];
  const strange = hosts.find((host) => !HOST.test(host));
  if (strange)
    return refuse(
      'host-invalid',
      `${strange.slice(0, 80)} is no name server. Write one like ns1.quaymark.test.`,
      'hosts',
    );
  if (hosts.length < FEWEST || hosts.length > MOST)
    return refuse('hosts-count', `Write ${FEWEST} to ${MOST} name servers, one a line.`, 'hosts');
  return hosts;
}
