import { rowsOn } from '@/core/ledger';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectNameIds } from '@/database/names';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { editNames, requestSwitch } from './edit';
import { projectedLedger } from './ledger';
import { asOfFrom } from './list';
import { type NameDocument, nameDocument } from './nameDocument';

/** One name as `/api/v1` shows it. Its account's other names are projected along with it, since they share its money. */
export async function nameOn(deps: Deps, written: string, query: URLSearchParams): Promise<NameDocument | Refusal> {
  const id = await nameId(deps, written);
  if (isRefusal(id)) return id;
  const asOf = asOfFrom(query, deps.clock());
  if (isRefusal(asOf)) return asOf;
  const projection = await projectedLedger(deps);
  const place = projection.names.placeOf(id);
  if (place === undefined) return refuse('name-not-in-ledger', `${written.slice(0, 100)} is no longer at its account.`);
  return nameDocument(rowsOn(projection, asOf)(place), projection, asOf);
}

async function nameId(deps: Deps, written: string): Promise<number | Refusal> {
  const name = parseDomainName(written, { allowPrivateEndings: true });
  if (isRefusal(name)) return refuse('name-not-in-ledger', name.message);
  const id = (await selectNameIds(deps.database, [name.ascii])).get(name.ascii);
  return id ?? refuse('name-not-in-ledger', `${name.unicode} is not in the ledger. Import it first.`);
}

const PURPOSES = { use: 'in use', hold: 'hold', sale: 'for sale', drop: 'drop' } as const;

/** Changes one name by the members of its document: purpose, tags, notes, asking, account, dates, and asks for auto-renew. */
export const patchName = command(
  'patchName',
  async (deps: Deps, written: string, body: unknown): Promise<true | Refusal> => {
    const id = await nameId(deps, written);
    if (isRefusal(id)) return id;
    if (typeof body !== 'object' || body === null || Array.isArray(body))
      return refuse('request-not-object', 'Send an object with the members to change.');
    const { autoRenew, purpose, tags, asking, account, notes, ...rest } = body as Record<string, unknown>;
    const edit: Record<string, unknown> = { ...rest };
    if (purpose !== undefined) edit.purpose = PURPOSES[purpose as keyof typeof PURPOSES] ?? purpose;
    if (notes !== undefined) Object.assign(edit, notes === '' || notes === null ? { clearNotes: true } : { notes });
    if (asking !== undefined) Object.assign(edit, asking === null ? { clearAsking: true } : { asking });
    if (tags !== undefined || account !== undefined) {
      const projection = await projectedLedger(deps, [id]);
      const now = projection.names.length > 0 ? projection.names.tags(0) : [];
      if (tags !== undefined) {
        if (!Array.isArray(tags) || !tags.every((tag) => typeof tag === 'string'))
          return refuse('request-invalid', 'tags is a list of texts.', 'tags');
        Object.assign(edit, { addTags: tags, removeTags: now.filter((tag) => !tags.includes(tag)) });
      }
      if (account !== undefined) {
        const found = projection.index.rules.accounts.find(
          (a) => a.label.toLowerCase() === String(account).toLowerCase(),
        );
        if (!found)
          return refuse(
            'account-unknown',
            `There is no account ${String(account).slice(0, 60)}. GET accounts lists them.`,
            'account',
          );
        edit.accountId = found.id;
      }
    }
    if (Object.keys(edit).length > 0) {
      const done = await editNames(deps, { nameIds: [id], edit });
      if (isRefusal(done)) return done;
    }
    if (autoRenew !== undefined) {
      const requested = await requestSwitch(deps, {
        nameIds: [id],
        what: 'auto-renew',
        to: (autoRenew as { requested?: unknown } | null)?.requested,
      });
      if (isRefusal(requested)) return requested;
    }
    return true;
  },
);
