import { statusesOf } from '../epp/answers';
import { yearsLater } from '../world/calendar';
import { deletionOf } from '../world/days';
import { OFFICE } from '../world/domain';
import type { Domain, Ms, Registrar, World } from '../world/types';
import { signerAtRegistry } from './keys';

/** What a registry or a registrar says of a name. They differ: a registry shows a year that nobody has paid for. */
export interface Told {
  readonly name: string;
  readonly createdAt: Ms;
  readonly expires: Ms;
  readonly changed: Ms;
  /** When it came to this registrar by a transfer. */
  readonly movedAt: Ms | null;
  readonly statuses: readonly string[];
  readonly registrar: Registrar;
  /** `null` where it is hidden. */
  readonly holder: string | null;
  readonly mail: string | null;
  readonly nameServers: readonly string[];
  /** What the registry vouches for, when the zone is signed. */
  readonly signer: string | null;
}

/** IANA numbers of the invented registrars. */
export const REGISTRAR_IDS: Readonly<Record<string, string>> = {
  quaymark: '9901',
  wrackgate: '9902',
  fernhithe: '9903',
  bollard: '9904',
  larkhythe: '9905',
};

/** A name as its registry tells it, or its registrar; `null` when it is free. */
export function tell(world: World, name: string, who: 'registry' | 'registrar'): Told | null {
  const domain = world.domains.get(name);
  const registrar = domain && world.registrars.get(domain.registrar);
  if (!domain || !registrar) return null;
  const { epp, rgp } = statusesOf(domain, registrar, world.now);
  const provisional =
    who === 'registry' &&
    domain.state === 'registered' &&
    world.now >= domain.paidThrough &&
    world.now < deletionOf(registrar, domain);
  return {
    name,
    createdAt: domain.createdAt,
    expires: provisional ? yearsLater(domain.paidThrough, 1) : domain.paidThrough,
    movedAt: domain.movedAt,
    changed: Math.max(domain.createdAt, domain.since, domain.movedAt ?? 0),
    statuses: [...epp, ...(who === 'registry' ? rgp : rgp.filter((status) => status !== 'autoRenewPeriod'))],
    registrar,
    holder: holderOf(domain, who),
    mail: domain.privacy
      ? null
      : `names@${domain.owner === 'office' ? OFFICE.toLowerCase().replace(/\W+/g, '-') : 'ketterby'}.test`,
    nameServers: domain.nameServers,
    signer: signerAtRegistry(world, name),
  };
}

/** Registries hide every holder; registrars show those who have not asked for privacy. */
function holderOf(domain: Domain, who: 'registry' | 'registrar'): string | null {
  return who === 'registry' || domain.privacy ? null : domain.holder;
}
