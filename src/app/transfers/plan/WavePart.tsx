'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { formatFigure } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { namesWords, yearsWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';
import type { MoveView, WaveView } from '../../frame/views';
import { moveNotes, savedWords, waveDay } from './planWords';
import { useMoney } from './useMoney';

const FIRST = 25;

/** On a narrow screen the table scrolls by itself. */

interface WavePartProps {
  readonly wave: WaveView;
  readonly years: number;
  /** The whole plan has been told already. */
  readonly isOnly: boolean;
  readonly onStart: () => void;
}

/** The transfers of one day: what they cost, what they save, and each name with what is to be known before. */
export function WavePart({ wave, years, isOnly, onStart }: WavePartProps) {
  const { style } = useLedger();
  const money = useMoney();
  const [isWhole, setWhole] = useState(false);
  const { at, moves, costMinor, savedMinor } = wave;
  const shown = isWhole ? moves : moves.slice(0, FIRST);
  const day = waveDay(at, style);
  return (
    <Section aria-label={`Transfers on ${day}`}>
      <h2>
        {day}: {namesWords(moves.length)} for {money(costMinor)}
      </h2>
      {!isOnly && <p className="soft">Together this {savedWords(savedMinor, years, money)}.</p>}
      <Wide least={640}>
        <Ruled aria-label={`Names moved on ${day}`}>
          <thead>
            <tr>
              <th>Name</th>
              <th>From</th>
              <th>To</th>
              <th className="figure">Transfer</th>
              <th className="figure">Saves a year</th>
              <th className="figure">Over {yearsWords(years)}</th>
              <th>Before it is requested</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((move) => (
              <MoveRow key={move.nameId} move={move} years={years} />
            ))}
          </tbody>
        </Ruled>
      </Wide>
      {!isOnly && (
        <div>
          <Button onPress={onStart}>Move these {namesWords(moves.length)}…</Button>
        </div>
      )}
      {shown.length < moves.length && (
        <div>
          <Button onPress={() => setWhole(true)}>Show all {namesWords(moves.length)}</Button>
        </div>
      )}
    </Section>
  );
}

function MoveRow({ move, years }: { move: MoveView; years: number }) {
  const { meta, homeCurrency, style } = useLedger();
  const label = (id: number) => meta?.rules.accounts.find((one) => one.id === id)?.label ?? '';
  const figure = (minor: number) => formatFigure({ minor, currency: homeCurrency });
  return (
    <tr>
      <td>
        <Link href={namePage(move.ascii)} className="name">
          {move.unicode}
        </Link>
      </td>
      <td>{label(move.fromId)}</td>
      <td>{label(move.accountId)}</td>
      <td className="figure">{figure(move.costMinor)}</td>
      <td className="figure">{figure(Math.round(move.savedMinor / years))}</td>
      <td className="figure">{figure(move.savedMinor)}</td>
      <td>{moveNotes(move, style)}</td>
    </tr>
  );
}
