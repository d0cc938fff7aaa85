'use client';
import { createGlobalStyle, css } from 'styled-components';

const day = css`
  color-scheme: light;
  --paper: #eef2f4;
  --sheet: #fbfcfc;
  --rule: #d3dce1;
  --ink: #15242e;
  --ink-soft: #55666f;
  --land: #e7d9ae;
  --land-edge: #8a7a45;
  --land-pale: #f4edd6;
  --shoal: #a9cbd8;
  --shoal-pale: #e3eff4;
  --shoal-edge: #2f6c86;
  --caution: #a3195b;
  --caution-pale: #f6dfe9;
  --bearing: #1f4e79;
  --bearing-pale: #e2ebf3;
  --on-bearing: #ffffff;
  --totals: #15242e;
  --on-totals: #f3f6f7;
  --on-totals-soft: #b7c4cb;
  --projection: #6b4fa0;
  --projection-pale: #efeaf7;
`;

const night = css`
  color-scheme: dark;
  --paper: #0f1a22;
  --sheet: #14222c;
  --rule: #2c3e4a;
  --ink: #e6edf0;
  --ink-soft: #a3b3bc;
  --land: #6f6233;
  --land-edge: #d2bd76;
  --land-pale: #39351f;
  --shoal: #2f5a6d;
  --shoal-pale: #1b3643;
  --shoal-edge: #8cc3d9;
  --caution: #f58bb9;
  --caution-pale: #47192f;
  --bearing: #93c2ec;
  --bearing-pale: #1d3348;
  --on-bearing: #0c1820;
  --totals: #0a131a;
  --on-totals: #e6edf0;
  --on-totals-soft: #a3b3bc;
  --projection: #bda8ea;
  --projection-pale: #241d38;
`;

/** Tokens for day and night, type, and what every page shares. */
export const GlobalStyle = createGlobalStyle`
  :root { ${day} }
  @media (prefers-color-scheme: dark) { :root:not([data-theme='day']) { ${night} } }
  :root[data-theme='night'] { ${night} }

  *, *::before, *::after { box-sizing: border-box; }
  html { font-size: 87.5%; }
  body {
    margin: 0;
    background: var(--paper);
    color: var(--ink);
    font-family: var(--font-text), sans-serif;
    font-variant-numeric: tabular-nums;
    line-height: 1.45;
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p, dl, dd, ul, ol, figure { margin: 0; padding: 0; }
  /* Four steps of type, each seen to be larger than the one below: text, a part, a place or a name, the answer. */
  h1 { font-size: 1.22rem; line-height: 1.25; }
  h2 { font-size: 1.22rem; line-height: 1.3; font-weight: 650; letter-spacing: -0.005em; }
  h3 { font-size: 1rem; font-weight: 650; }
  ul, ol { list-style: none; }
  a { color: var(--bearing); text-decoration: none; }
  a:hover, p a, h2 a, td.soft a { text-decoration: underline; }
  button, input, textarea, select { font: inherit; color: inherit; }
  :focus-visible { outline: 2px solid var(--bearing); outline-offset: 1px; }
  code, .name { font-family: var(--font-names), monospace; font-size: 0.97em; font-weight: 500; letter-spacing: -0.01em; }
  :is(h1, h2, h3) .name { font-weight: inherit; }
  td a.name, li a.name { color: var(--ink); font-weight: 650; }
  .caution { color: var(--caution); font-weight: 600; }
  a.caution, .caution a { color: var(--caution); }
  .soft { color: var(--ink-soft); }
  .figure { text-align: right; white-space: nowrap; }
  .decides { font-weight: 650; }
  /* What differs from what is known: underlined as well as coloured. */
  mark { background: var(--caution-pale); color: inherit; text-decoration: underline wavy 1px; text-underline-offset: 4px; }
  .visually-hidden { position: absolute; width: 1px; height: 1px; margin: -1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { animation: none !important; transition: none !important; } }
  @media print { body { background: white; } }
`;
