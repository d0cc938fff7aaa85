'use client';
import styled from 'styled-components';

/** The working surface of a page that is read from top to bottom. */
export const Page = styled.div`
  display: flex;
  flex-direction: column;
  gap: 20px;
  padding: 22px 26px 40px;
  max-width: 1120px;
  @media (max-width: 640px) { padding: 14px 14px 40px; }
`;

/** A part of a page with its heading. */
export const Section = styled.section`
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
  /* As high as a heading with a button beside it, so that parts side by side begin on one line. */
  & > h2:first-child { padding-block: 5px; }
`;

/** What a place answers, before what proves it: one sentence, the weightiest words on the page. */
export const Answer = styled.h2`
  font-size: 1.85rem;
  line-height: 1.18;
  font-weight: 700;
  letter-spacing: -0.012em;
  text-wrap: pretty;
  max-width: 44em;
  @media (max-width: 640px) { font-size: 1.5rem; }
`;

/** The answer with what stands under it: why, and what mends it. */
export const Head = styled.header`
  display: flex;
  flex-direction: column;
  gap: 6px;
  & > p { font-size: 1.07rem; color: var(--ink-soft); max-width: 90ch; }
  & > p a, & > p button { font-size: inherit; }
`;

/** A row of fields that wraps. */
export const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 12px 16px;
  align-items: start;
`;

/** A ruled table. Figures carry the class `figure`. */
export const Ruled = styled.table`
  width: 100%;
  border-collapse: collapse;
  & th { text-align: left; font-weight: 400; color: var(--ink-soft); font-size: 0.9rem; padding: 6px 10px 6px 0; border-bottom: 1px solid var(--rule); }
  & td { padding: 6px 10px 6px 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
  &[data-middle] td { vertical-align: middle; }
  & th[scope='row'] { vertical-align: top; padding-top: 7px; }
  & th.figure, & td.figure { text-align: right; }
  & td.whole { white-space: nowrap; }
  & .figure + :not(.figure) { padding-left: 14px; }
  /* Text that is pressed stands on the edge of its column, as text does. */
  & td button[data-kind='plain'], & td a[data-kind='plain'] { min-height: 24px; padding-block: 0; }
  & td:not(.figure) > :is(button, a)[data-kind='plain']:first-child { margin-left: -7px; }
  & td.figure > :is(button, a)[data-kind='plain']:last-child { margin-right: -7px; }
  & tfoot td { font-weight: 600; }
  & tfoot tr:last-child td { border-bottom: 3px double var(--ink); }
  & tr[data-off='true'] td { color: var(--ink-soft); }
  /* On a telephone a table of sentences is a list: what it is about with its figures, the sentence under it over the whole width. */
  &[data-list] {
    @media (max-width: 640px) {
      & thead, & colgroup { display: none; }
      &, & tbody, & tfoot { display: block; }
      & tr { display: flex; flex-wrap: wrap; align-items: baseline; gap: 2px 14px; padding: 8px 0; border-bottom: 1px solid var(--rule); }
      & td, & td:not(.figure) { padding: 0; border: 0; }
      & td:first-child:not(.under), & td.lead { flex: 1 1 60%; }
      & td.sentence { order: 1; flex: 1 0 100%; }
      /* Short facts stand in a line under it. */
      & tr:has(> td.under)::before { content: ''; order: 1; flex: 1 0 100%; }
      & td.under { order: 1; }
      & td:empty { display: none; }
      & tfoot tr:last-child { border-bottom: 3px double var(--ink); }
      & tfoot tr:last-child td { border: 0; }
      /* Without its heading above it a figure says what it is. */
      & td[data-said]:not(:empty)::before { content: attr(data-said) ' '; color: var(--ink-soft); }
      & th[scope='rowgroup'] { display: block; border: 0; padding-block: 8px 0; }
    }
  }
`;

/** A notice that needs an answer or care. */
export const Notice = styled.div`
  padding: 10px 14px;
  border-left: 4px solid var(--bearing);
  background: var(--bearing-pale);
  &[data-kind='caution'] { border-color: var(--caution); background: var(--caution-pale); }
`;
