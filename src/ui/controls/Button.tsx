'use client';
import { Button as AriaButton } from 'react-aria-components';
import styled, { css } from 'styled-components';
import { Link } from './Link';

const shape = css`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 32px;
  padding: 4px 12px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
  white-space: nowrap;
  text-decoration: none;
  &[data-hovered], &:hover { border-color: var(--ink-soft); text-decoration: none; }
  &[data-pressed] { background: var(--bearing-pale); }
  &[data-disabled] { opacity: 0.55; cursor: default; }
  &[data-kind='primary'] { background: var(--bearing); border-color: var(--bearing); color: var(--on-bearing); }
  &[data-kind='caution'] { border-color: var(--caution); color: var(--caution); }
  &[data-kind='plain'] { border-color: transparent; background: none; color: var(--bearing); padding: 4px 6px; }
`;

/** A button. `data-kind` is `primary` for the one main act of a place, `plain` for a quiet one, `caution` for one that loses something. */
export const Button = styled(AriaButton)`${shape}`;

/** A link that is laid out as a button. */
export const ButtonLink = styled(Link)`${shape}`;
