'use client';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { STANDS, type Stand } from '@/core/prospects';
import { Button } from '@/ui/controls/Button';
import { Choice } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { roughly } from '@/ui/text/prospectWords';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { namesWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import type { RankedRow, RankingSums, RowView } from '../../frame/views';
import { useProspects } from '../ProspectsContext';
import { ChosenPart } from './ChosenPart';
import { STAND_WORDS } from './standWords';
import { WorthTable } from './WorthTable';

const PAGE = 100;

const Asked = styled.div`display: flex; flex-wrap: wrap; gap: 8px 16px; align-items: end;`;

/** Every name by what its next year is worth: what does not carry its cost first. */
export function NamesScreen() {
  const { worker, meta, problem, reload } = useLedger();
  const { assumptions, view } = useProspects();
  const [only, setOnly] = useState<Stand | null>(null);
  const [shown, setShown] = useState(PAGE);
  const [sums, setSums] = useState<RankingSums | null>(null);
  const [rows, setRows] = useState<readonly RankedRow[]>([]);
  const [chosen, setChosen] = useState<ReadonlyMap<number, RowView>>(new Map());
  useTitle('Prospects', 'which names are worth another year?');
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    const judging = { assumptions, view };
    void Promise.all([worker.ranking(judging, only), worker.ranked(judging, only, 0, shown)]).then(([found, list]) => {
      if (stale) return;
      setSums(found);
      setRows(list);
    });
    return () => {
      stale = true;
    };
  }, [worker, meta, assumptions, view, only, shown]);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (meta === null || sums === null) return <Loading text="Judging every name" />;
  const choose = (row: RowView, isChosen: boolean) =>
    setChosen((before) => {
      const next = new Map(before);
      if (isChosen) next.set(row.name.id, row);
      else next.delete(row.name.id);
      return next;
    });
  const chooseShown = () => setChosen(new Map(rows.map(({ row }) => [row.name.id, row])));
  return (
    <Page style={{ maxWidth: 1240, paddingBottom: chosen.size > 0 ? 250 : 40 }}>
      <Head>
        <Answer>{rankingAnswer(sums, meta.rules.homeCurrency)}</Answer>
        <p>
          Saves is what is not paid; the gain is what that is more than the names may bring. By the{' '}
          <Link href="/prospects">assumptions of the outlook</Link>, as they stand there now.
        </p>
      </Head>
      <Asked>
        <Choice
          label="Show"
          value={only ?? 'all'}
          onChange={(value) => {
            setOnly(value === 'all' ? null : (value as Stand));
            setShown(PAGE);
          }}
          options={[
            {
              value: 'all',
              text: `all names (${sums.counts.reduce((sum, count) => sum + count, 0).toLocaleString('en')})`,
            },
            ...STANDS.map((stand, i) => ({
              value: stand,
              text: `${STAND_WORDS[stand].toLowerCase()} (${(sums.counts[i] ?? 0).toLocaleString('en')})`,
            })),
          ]}
        />
        <Button onPress={chooseShown}>Choose the {rows.length.toLocaleString('en')} shown</Button>
      </Asked>
      <Section aria-label="Names">
        <WorthTable rows={rows} chosen={chosen} onChoose={choose} />
        {rows.length < sums.total && (
          <Button onPress={() => setShown(shown + PAGE)}>Show {Math.min(PAGE, sums.total - rows.length)} more</Button>
        )}
      </Section>
      {chosen.size > 0 && <ChosenPart rows={[...chosen.values()]} onClear={() => setChosen(new Map())} />}
    </Page>
  );
}

function rankingAnswer({ counts, savesMinor, gainMinor }: RankingSums, currency: string): string {
  const [not = 0, under = 0, undecided = 0] = counts;
  const money = (minor: number) => roughly(minor, currency);
  const first =
    not === 0
      ? 'Every name that can be judged is worth its next year.'
      : `${countOf(not, 'name is', 'names are')} not worth ${not === 1 ? 'its' : 'their'} next renewal: dropping ${not === 1 ? 'it' : 'them'} saves ${money(savesMinor)}, a gain of ${money(gainMinor)}.`;
  const second = under === 0 ? '' : ` ${countOf(under, 'name is', 'names are')} underpriced.`;
  const third = undecided === 0 ? '' : ` ${namesWords(undecided)} cannot be judged.`;
  return first + second + third;
}
