import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsInt } from 'class-validator';
import { type Proposal, proposalOf } from '@/core/news';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatTermEnd } from '@/core/time';
import {
  countOpenMails,
  type MailNameRow,
  type MailRow,
  type MailsWanted,
  noteNewsBatch,
  reopenNews,
  selectMail,
  selectMails,
  selectRawMail,
  selectStandings,
  settleNews,
} from '@/database/mails';
import type { Done } from '../changing';
import type { Deps } from '../deps';
import { confirmSwitch, editNames } from '../names/edit';
import { addEntry } from '../names/entries';
import { command } from '../people/command';
import { readRequest } from '../validate';

export { MAIL_SOURCES, type MailRow } from '@/database/mails';

/** A mail with its text, and what follows from it for each of its names as the ledger stands now. */
export interface MailView extends MailRow {
  readonly body: string;
  readonly proposals: ReadonlyMap<number, Proposal>;
}

/** Which names of a mail, and what becomes of what it says of them. */
export class SettleMail {
  @IsInt()
  mailId!: number;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(2000)
  @IsInt({ each: true })
  nameIds!: number[];

  @IsIn(['take over', 'leave'])
  as!: 'take over' | 'leave';
}

/** Mails, those that came last first. */
export const mails = ({ database }: Deps, wanted: MailsWanted): Promise<MailRow[]> => selectMails(database, wanted);

/** A mail as it came: its octets. */
export const rawMail = ({ database }: Deps, id: number): Promise<Buffer | null> => selectRawMail(database, id);

/** How many mails wait for somebody to look. */
export const openMails = ({ database }: Deps): Promise<number> => countOpenMails(database);

/** One mail; `null` where there is none. */
export async function mail(deps: Deps, id: number): Promise<MailView | null> {
  const row = await selectMail(deps.database, id);
  if (!row) return null;
  const standings = await selectStandings(
    deps.database,
    row.names.map(({ nameId }) => nameId),
  );
  const proposals = new Map<number, Proposal>();
  for (const name of row.names) {
    const now = standings.get(name.nameId);
    const proposal = name.state === 'open' && now ? proposalOf(row.kind, name, now) : null;
    if (proposal) proposals.set(name.nameId, proposal);
  }
  return { ...row, proposals };
}

/** Takes over what a mail says of names, with the mail as evidence, or leaves it. Answers how many names. */
export const settleMail = command('settleMail', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(SettleMail, input);
  if (isRefusal(request)) return request;
  const found = await mail(deps, request.mailId);
  if (!found) return refuse('not-found', 'There is no such mail.');
  let settled = 0;
  for (const name of found.names.filter(({ nameId, state }) => request.nameIds.includes(nameId) && state === 'open')) {
    const proposal = found.proposals.get(name.nameId);
    if (request.as === 'leave' || !proposal) {
      settled += (await settleNews(deps.database, found.id, name.nameId, 'left')) ? 1 : 0;
      continue;
    }
    // Taken first: whoever takes it over at the same time finds nothing to do.
    if (!(await settleNews(deps.database, found.id, name.nameId, 'taken'))) continue;
    const done = await carryOut(deps, found, name, proposal);
    if (isRefusal(done)) {
      await reopenNews(deps.database, found.id, name.nameId);
      return done;
    }
    if (done.batchId !== null) await noteNewsBatch(deps.database, found.id, name.nameId, done.batchId);
    settled += 1;
  }
  return settled > 0 ? settled : refuse('nothing-open', 'Nothing of this mail is open for these names any more.');
});

const evidenceOf = ({ subject, sender, sentAt, cameAt }: MailRow) =>
  `mail of ${dayOf(sentAt ?? cameAt)} from ${sender || 'a pasted text'}: ${subject}`.slice(0, 200);

async function carryOut(deps: Deps, from: MailRow, name: MailNameRow, proposal: Proposal): Promise<Done | Refusal> {
  const nameIds = [name.nameId];
  const evidence = evidenceOf(from);
  switch (proposal.what) {
    case 'auto-renew':
      return confirmSwitch(deps, { nameIds, what: 'auto-renew', setting: proposal.setting, evidence });
    case 'confirm mail':
      return editNames(deps, { nameIds, edit: { confirmMailBy: formatTermEnd(proposal.by), evidence } });
    case 'term end': {
      const { end, charged } = proposal;
      const edited = await editNames(deps, { nameIds, edit: { expiresAt: formatTermEnd(end), evidence } });
      if (isRefusal(edited) || charged === null) return edited;
      const entered = await addEntry(deps, {
        nameId: name.nameId,
        onDay: dayOf(from.sentAt ?? from.cameAt),
        kind: 'renewal',
        minor: charged.minor,
        currency: charged.currency,
        note: evidence,
      });
      return isRefusal(entered) ? entered : edited;
    }
  }
}
