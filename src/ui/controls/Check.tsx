'use client';
import { Check as CheckIcon, Minus } from 'lucide-react';
import type { ReactNode } from 'react';
import { Checkbox, type CheckboxProps } from 'react-aria-components';
import styled from 'styled-components';

const Row = styled(Checkbox)`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-width: 24px;
  min-height: 24px;
  cursor: pointer;
  &[data-disabled] { opacity: 0.55; }
`;

export const CheckBoxMark = styled.span`
  display: inline-grid;
  place-items: center;
  flex: none;
  width: 14px;
  height: 14px;
  border: 1px solid var(--ink-soft);
  border-radius: 2px;
  background: var(--sheet);
  color: var(--on-bearing);
  [data-selected] > &, [data-indeterminate] > &, &[data-on='true'] { background: var(--bearing); border-color: var(--bearing); }
  [data-focus-visible] > & { outline: 2px solid var(--bearing); outline-offset: 2px; }
`;

/** A check box with its words. */
export function Check({ children, ...props }: Omit<CheckboxProps, 'children'> & { children?: ReactNode }) {
  return (
    <Row {...props}>
      {({ isSelected, isIndeterminate }) => (
        <>
          <CheckBoxMark aria-hidden>
            {isIndeterminate ? (
              <Minus size={11} strokeWidth={3} />
            ) : isSelected ? (
              <CheckIcon size={11} strokeWidth={3.5} />
            ) : null}
          </CheckBoxMark>
          {children}
        </>
      )}
    </Row>
  );
}
