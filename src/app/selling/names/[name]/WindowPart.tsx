'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { VISITS_SHOWN_DAYS } from '@/core/shop';
import { addDays, type Day, dayOf, type Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Actions } from '@/ui/overlay/Dialog';
import { Notice, Ruled, Section } from '@/ui/text/Sheet';
import { type dayWords, hourWords } from '@/ui/text/words';
import type { WindowShown } from '@/usecases/shop/shows';
import { changeNameServersAction } from '../../../acts/servers/actions';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { lookForWindowsAction } from '../../actions';

const Bars = styled.div`
  display: flex;
  align-items: end;
  gap: 2px;
  height: 46px;
  max-width: 420px;
  border-bottom: 1px solid var(--rule);
  & i { flex: 1; min-height: 1px; background: var(--bearing); }
  & i[data-none] { background: var(--rule); }
`;

export interface WindowSeen extends WindowShown {
  /** Visits by day, the last first. */
  readonly visits: readonly { readonly day: Day; readonly visits: number }[];
}

/** Whether buyers who open the name see its window, how often they did, and what has to be set. */
export function WindowPart({
  nameId,
  ascii,
  seen,
  linked,
}: {
  nameId: number;
  ascii: string;
  seen: WindowSeen;
  linked: boolean;
}) {
  const { style, today } = useLedger();
  const { records, nameServers, visits, url } = seen;
  const all = visits.reduce((sum, one) => sum + one.visits, 0);
  return (
    <Section aria-label="Shop window">
      <h2>Shop window</h2>
      <p>
        {all === 0
          ? 'Nobody has opened its window in the last 30 days.'
          : `Its window was opened ${all === 1 ? 'once' : `${all.toLocaleString('en')} times`} in the last 30 days, robots left out.`}
      </p>
      {url !== null && (
        <p>
          <a href={`${url}/n/${ascii}`} target="_blank" rel="noreferrer">
            See its window
          </a>
        </p>
      )}
      {all > 0 && <VisitBars visits={visits} today={today} />}
      {records.length === 0 && nameServers.length === 0 ? (
        <p className="soft">Write under Setup, Shop window, where names have to lead.</p>
      ) : (
        <PlacePart nameId={nameId} seen={seen} linked={linked} style={style} />
      )}
    </Section>
  );
}

/** What has to be set, whether it is, and what does it. */
function PlacePart({
  nameId,
  seen: { records, nameServers, look },
  linked,
  style,
}: {
  nameId: number;
  seen: WindowSeen;
  linked: boolean;
  style: Parameters<typeof dayWords>[1];
}) {
  const { ask, isBusy } = useSave();
  const [evenIfSigned, setEvenIfSigned] = useState(false);
  const lookNow = () =>
    ask(lookForWindowsAction([nameId]), (shows) =>
      shows > 0 ? 'DNS leads to its window.' : 'DNS does not lead to its window.',
    );
  const pointIt = () =>
    ask(
      changeNameServersAction({ nameIds: [nameId], hosts: nameServers.join('\n'), byHand: false, evenIfSigned }),
      'Its name servers are set. DNS takes a few hours to show it everywhere.',
    );
  return (
    <>
      <Standing look={look} style={style} />
      {records.length > 0 && (
        <Ruled aria-label="What has to be set">
          <tbody>
            {records.map(({ owner, type, data }) => (
              <tr key={`${owner} ${type} ${data}`}>
                <td className="name">{owner}</td>
                <td>{type}</td>
                <td className="name">{data}</td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
      {nameServers.length > 0 && (
        <p className="soft">
          {records.length > 0 ? 'Or its name servers: ' : 'Its name servers have to be '}
          <span className="name">{nameServers.join(', ')}</span>
        </p>
      )}
      <Actions>
        <Button isDisabled={isBusy} onPress={() => void lookNow()}>
          Look now
        </Button>
        {nameServers.length > 0 && linked && (
          <>
            <Button isDisabled={isBusy} onPress={() => void pointIt()}>
              Set the name servers by link
            </Button>
            <Check isSelected={evenIfSigned} onChange={setEvenIfSigned}>
              even if it is signed
            </Check>
          </>
        )}
      </Actions>
    </>
  );
}

function Standing({ look, style }: { look: WindowShown['look']; style: Parameters<typeof dayWords>[1] }) {
  if (look === null) return <p className="soft">Nobody has looked yet whether it leads there.</p>;
  const when = hourWords(look.lookedAt, style);
  if (look.problem !== null)
    return (
      <Notice data-kind="caution">
        <p>
          {look.problem} {when}
        </p>
      </Notice>
    );
  return look.shows ? (
    <p>It leads to its window, as DNS showed {when}.</p>
  ) : (
    <Notice data-kind="caution">
      <p>
        It does not lead to its window: {when} DNS showed {look.found.length === 0 ? 'nothing' : look.found.join(', ')}.
      </p>
    </Notice>
  );
}

/** The visits of the last 30 days, a bar for each, today at the right. */
function VisitBars({ visits, today }: { visits: WindowSeen['visits']; today: Instant }) {
  const most = Math.max(1, ...visits.map((one) => one.visits));
  const byDay = new Map(visits.map((one) => [one.day as string, one.visits]));
  const days = Array.from({ length: VISITS_SHOWN_DAYS }, (_, place) =>
    dayOf(addDays(today, place - VISITS_SHOWN_DAYS + 1)),
  );
  return (
    <Bars role="img" aria-label={`Visits by day; on the busiest day ${most}`}>
      {days.map((day) => {
        const count = byDay.get(day) ?? 0;
        return (
          <i
            key={day}
            title={`${day}: ${count}`}
            data-none={count === 0 || undefined}
            style={{ height: `${(count / most) * 100}%` }}
          />
        );
      })}
    </Bars>
  );
}
