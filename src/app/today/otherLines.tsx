'use client';
import { MOVE_WAY } from '@/core/moving';
import { ButtonLink } from '@/ui/controls/Button';
import type { DecisionLines } from '@/ui/grid/DecisionTable';
import { StageStrip } from '@/ui/strip/StageStrip';
import { LINE_WIDTH } from '@/ui/strip/tableScale';
import { formatAmount } from '@/ui/text/figures';
import { dayWords, dueWords } from '@/ui/text/words';
import type { AcquiringItem } from '@/usecases/acquiring/today';
import type { TransferView } from '@/usecases/moving/underWay';
import { nameLink, type Told } from '../acts/agenda/sellingLines';
import { namePage } from '../frame/pages';

/** Transfers that wait for the person, or have stood longer than they usually do. */
export function transferLines(transfers: readonly TransferView[], { style, today }: Told): DecisionLines[] {
  if (transfers.length === 0) return [];
  return [
    {
      title: 'Transfers that wait',
      total: transfers.length,
      lines: transfers.slice(0, 10).map(({ dueAt, ...one }) => ({
        key: `transfer ${one.id}`,
        day: dueWords(dueAt, today, style).day,
        days: dueWords(dueAt, today, style).days,
        name: nameLink(namePage(one.ascii), one.unicode),
        who: `to ${one.to}`,
        what: (
          <>
            <span>
              {one.turn === 'you' ? 'waits for you' : 'later than usual'} since {dayWords(one.since, style)}
            </span>
            {one.problem && <p className="soft">{one.problem}</p>}
          </>
        ),
        picture: (
          <StageStrip
            stages={MOVE_WAY}
            present={one.stage}
            isOverdue={one.isOverdue}
            width={LINE_WIDTH}
            height={30}
            label={`transfer: ${one.stage}`}
          />
        ),
        figures: one.quotedMinor === null ? '' : formatAmount({ minor: one.quotedMinor, currency: one.currency }),
        acts: (
          <ButtonLink data-kind="plain" href="/transfers" aria-label={`Go on with the transfer of ${one.unicode}`}>
            Go on…
          </ButtonLink>
        ),
        isGrave: false,
      })),
    },
  ];
}

const ACQUIRING_WORDS: Readonly<Record<AcquiringItem['what'], string>> = {
  'to register by hand': 'register it at its registrar, and write down what was charged',
  'in doubt': 'its registration is in doubt: look whether it went through',
  'answer overdue': 'its holder has not answered in time',
  'to pay': 'agreed with its holder: pay it',
  'to arrive': 'paid: look whether it has arrived',
  'being tried': 'its release is waited for by the minute',
  got: 'registered at its release',
  lost: 'somebody else was faster at its release',
};

/** What acquiring wants of a person, and its news. */
export function acquiringLines(items: readonly AcquiringItem[], { style }: Told): DecisionLines[] {
  if (items.length === 0) return [];
  return [
    {
      title: 'Acquiring, to see to',
      total: items.length,
      lines: items.slice(0, 10).map(({ ascii, unicode, what, since, href }) => ({
        key: `${ascii} ${what}`,
        day: '',
        days: '',
        name: nameLink(href, unicode),
        who: '',
        what: (
          <>
            <span>{ACQUIRING_WORDS[what]}</span>
            <span className="soft">, since {dayWords(since, style)}</span>
          </>
        ),
        picture: null,
        figures: '',
        acts: (
          <ButtonLink data-kind="plain" href={href} aria-label={`See to ${unicode}`}>
            See to it…
          </ButtonLink>
        ),
        isGrave: false,
      })),
    },
  ];
}
