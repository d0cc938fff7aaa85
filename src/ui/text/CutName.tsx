'use client';
import styled from 'styled-components';

const Line = styled.span`
  display: flex;
  min-width: 0;
  & > span:first-child { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  & > span:last-child { flex: none; white-space: nowrap; }
`;

/** Letters of a label that are kept at its end. */
const END = 5;

/** A name that is cut in its middle where there is no room for all of it: its beginning and its end tell it from its neighbours. */
export function CutName({ name }: { name: string }) {
  const dot = name.indexOf('.');
  const at = dot > END ? dot - END : 0;
  return (
    <Line>
      <span>{name.slice(0, at)}</span>
      <span>{name.slice(at)}</span>
    </Line>
  );
}
