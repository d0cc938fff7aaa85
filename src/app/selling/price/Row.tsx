'use client';
import styled from 'styled-components';

/** A line of controls over the list. */
export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: end;
  & > * { flex: 0 1 128px; }
  & > button { flex: none; }
  & > [data-short='true'] { flex-basis: 70px; }
  & > [data-wide='true'] { flex-basis: 196px; }
`;
