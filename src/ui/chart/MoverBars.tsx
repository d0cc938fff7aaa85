'use client';
import styled from 'styled-components';

/** One input: what its ends lead to, from the middle, minor units, and both in words. */
export interface MoverBar {
  readonly key: string;
  readonly text: string;
  readonly low: { readonly minor: number; readonly words: string };
  readonly high: { readonly minor: number; readonly words: string };
}

const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 9px;
`;

const Track = styled.div`
  position: relative;
  height: 15px;
  background: linear-gradient(var(--rule), var(--rule)) 0 50% / 100% 1px no-repeat;
  & > i { position: absolute; inset: 1px auto; height: 13px; border: 1px solid var(--land-edge); background: var(--land); }
  & > i[data-loss='true'] { border-color: var(--caution); background: repeating-linear-gradient(45deg, var(--caution) 0 1.4px, var(--caution-pale) 1.4px 6px); }
  & > b { position: absolute; top: -3px; bottom: -3px; width: 2px; margin-left: -1px; background: var(--ink); }
`;

const Words = styled.div`
  display: flex;
  justify-content: space-between;
  gap: 12px;
  & > span:last-child { text-align: right; }
`;

/** How far each input moves the result, from the result as it is (the line): worse is hatched. The greatest first. */
export function MoverBars({ bars, middle, label }: { bars: readonly MoverBar[]; middle: number; label: string }) {
  const all = bars.flatMap(({ low, high }) => [low.minor, high.minor]).concat(middle);
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const place = (minor: number) => (most === least ? 50 : (100 * (minor - least)) / (most - least));
  return (
    <List aria-label={label}>
      {bars.map(({ key, text, low, high }) => {
        const ends = [low, high].sort((a, b) => a.minor - b.minor) as [MoverBar['low'], MoverBar['low']];
        return (
          <li key={key}>
            <b>{text}</b>
            <Track aria-hidden>
              <i
                data-loss
                style={{
                  left: `${place(ends[0].minor)}%`,
                  width: `${Math.max(0, place(middle) - place(ends[0].minor))}%`,
                }}
              />
              <i
                style={{ left: `${place(middle)}%`, width: `${Math.max(0, place(ends[1].minor) - place(middle))}%` }}
              />
              <b style={{ left: `${place(middle)}%` }} />
            </Track>
            <Words className="soft">
              <span>{ends[0].words}</span>
              <span>{ends[1].words}</span>
            </Words>
          </li>
        );
      })}
    </List>
  );
}
