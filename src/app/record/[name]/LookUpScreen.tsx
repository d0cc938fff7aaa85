'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { nearSpellings } from '@/core/names';
import { holderOf, type RegistrationRecord } from '@/core/records';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { type DayStyle, dayWords, termEndWords } from '@/ui/text/words';
import type { ListedName } from '@/usecases/records/list';
import type { StoredRecord } from '@/usecases/records/records';
import type { LookedUp } from '@/usecases/records/watch';
import { seenZoneAction } from '../../acts/drop/actions';
import { toldRefused } from '../../acts/toldRefused';
import { useBusy } from '../../acts/useBusy';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { lookUpListAction, unwatchAction, watchAction } from '../actions';
import { ListedNames } from '../ListedNames';
import { RecordHistory } from './RecordHistory';

/** Any name: free or taken, by whom and until when, whom to reach, and what to do next. */
export function LookUpScreen({
  found,
  history,
}: {
  found: LookedUp;
  history: readonly (StoredRecord & { raw: string })[];
}) {
  const router = useRouter();
  const { style } = useLedger();
  const [zone, setZone] = useState<string | null>(null);
  const [near, setNear] = useState<readonly ListedName[] | null>(null);
  const [busy, during] = useBusy();
  const { ascii, unicode, record, registrarRecord, release, problem, watched } = found;
  useTitle('Registration record', unicode);

  const watch = async () => {
    const answer = watched ? await unwatchAction(ascii) : await watchAction({ names: [ascii] });
    if (!toldRefused(answer)) router.refresh();
  };
  const lookAtZone = async () => {
    const answer = await seenZoneAction(ascii);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setZone(answer);
  };
  const lookAround = async () => {
    const answer = await during(lookUpListAction(nearSpellings(ascii).slice(0, 60).join('\n')));
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    // Those that somebody has are the ones to watch.
    else setNear([...answer].sort((a, b) => Number(b.record?.found === true) - Number(a.record?.found === true)));
  };

  const holder = holderOf(registrarRecord) ?? holderOf(record);
  const contact = registrarRecord?.holder ?? record?.holder ?? null;
  const reach = contact?.mail ?? contact?.form ?? null;
  const facts = record?.found === true ? factsOf(record, { holder, reach, style }) : [];
  return (
    <Page>
      <Section>
        <h2 className="name">{unicode}</h2>
        {problem && <p className="caution">{problem}</p>}
        {record === null && !problem && <p>No record could be had.</p>}
        {record?.found === false && <p>Available: anyone may register it.</p>}
        {record?.found && release?.earliest && release.latest && (
          <p>
            {release.ifNotRenewed ? 'If its holder does not renew it, it' : 'It'} becomes available between{' '}
            {dayWords(release.earliest, style)} and {dayWords(release.latest, style)}.{' '}
            {reach ? 'Ask the holder, or wait for its release.' : 'Ask through the registrar, or wait for its release.'}
          </p>
        )}
        <Actions>
          <Button data-kind="primary" onPress={() => void watch()}>
            {watched ? 'Watch it no more' : 'Watch it'}
          </Button>
          <Button onPress={() => void lookAtZone()}>What it is in use for</Button>
          <Button isDisabled={busy} onPress={() => void lookAround()}>
            {busy ? 'Asking the registries…' : 'Near spellings'}
          </Button>
        </Actions>
      </Section>
      <FactsPart facts={facts} />
      {zone !== null && <ZonePart ascii={ascii} zone={zone} />}
      {near !== null && (
        <Section aria-label="Near spellings">
          <h2>Near spellings</h2>
          <ListedNames names={near} />
        </Section>
      )}
      <RecordHistory history={history} />
    </Page>
  );
}

/** What a record says, word by word. */
function factsOf(
  record: RegistrationRecord,
  { holder, reach, style }: { holder: string | null; reach: string | null; style: DayStyle },
): [string, string][] {
  return [
    ['holder', holder ?? 'held back'],
    ['reach the holder', reach ?? 'not shown: ask through the registrar'],
    ['registrar', [record.registrar, record.registrarId && `IANA ${record.registrarId}`].filter(Boolean).join(', ')],
    ['abuse', [record.abuseMail, record.abusePhone].filter(Boolean).join(', ') || 'not shown'],
    ['registered', record.registered ? dayWords(record.registered, style) : 'not told'],
    ['term ends', record.expires ? termEndWords(record.expires, style) : 'not told'],
    ['statuses', record.statuses.join(', ') || 'none'],
    ['name servers', record.nameServers.join(', ') || 'none'],
  ];
}

/** What the record says, fact by fact. */
function FactsPart({ facts }: { facts: readonly (readonly [string, string])[] }) {
  if (facts.length === 0) return null;
  return (
    <Section aria-label="What the record says">
      <h2>What the record says</h2>
      <Ruled aria-label="What the record says">
        <tbody>
          {facts.map(([what, said]) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>{said}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** The zone as name servers show it, to be kept. */
function ZonePart({ ascii, zone }: { ascii: string; zone: string }) {
  return (
    <Section aria-label="What it is in use for">
      <h2>What it is in use for</h2>
      <pre>{zone}</pre>
      <Actions>
        <a href={`data:text/dns;charset=utf-8,${encodeURIComponent(zone)}`} download={`${ascii}.zone`}>
          Save as a zone file
        </a>
      </Actions>
    </Section>
  );
}
