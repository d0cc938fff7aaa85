'use client';
import styled from 'styled-components';

/** One bar: what it is of, how long it is in minor units (below nothing for a loss), and its figure in words. */
export interface ProfitBar {
  readonly key: string;
  readonly minor: number | null;
  readonly words: string;
  readonly about: string;
}

const List = styled.ul`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto auto;
  gap: 5px 12px;
  align-items: center;
  & li { display: contents; }
`;

const Track = styled.span`
  position: relative;
  height: 16px;
  border-left: 1px solid var(--ink);
  & > i { position: absolute; inset: 1px auto 1px 0; border: 1px solid var(--land-edge); background: var(--land); }
  & > i[data-loss='true'] { border-color: var(--caution); background: repeating-linear-gradient(45deg, var(--caution) 0 1.4px, var(--caution-pale) 1.4px 6px); }
`;

/** Profit by year, by ending, by marketplace as bars on one scale; a loss hatched. Each bar says its own figure. */
export function ProfitBars({ bars, label }: { bars: readonly ProfitBar[]; label: string }) {
  const most = Math.max(1, ...bars.map(({ minor }) => Math.abs(minor ?? 0)));
  return (
    <List aria-label={label}>
      {bars.map(({ key, minor, words, about }) => (
        <li key={key}>
          <span>{key}</span>
          <Track aria-hidden>
            {minor !== null && minor !== 0 && (
              <i data-loss={minor < 0} style={{ width: `${Math.max(0.5, (100 * Math.abs(minor)) / most)}%` }} />
            )}
          </Track>
          <b className={minor !== null && minor < 0 ? 'figure caution' : 'figure'}>{words}</b>
          <span className="soft figure">{about}</span>
        </li>
      ))}
    </List>
  );
}
