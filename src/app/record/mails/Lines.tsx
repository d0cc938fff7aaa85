'use client';
import styled from 'styled-components';

/** A list of sentences, ruled. */
export const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 100ch;
  border-top: 1px solid var(--rule);
  & > li { padding: 7px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
`;
