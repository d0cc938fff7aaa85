'use client';
import type { ReactNode } from 'react';
import { Menu as AriaMenu, MenuItem, MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { OptionsPopover } from '../controls/Field';

const Item = styled(MenuItem)`
  padding: 6px 12px;
  border-radius: 2px;
  cursor: pointer;
  &[data-focused] { background: var(--bearing-pale); outline: none; }
  &[data-disabled] { opacity: 0.55; cursor: default; }
  color: var(--ink);
  display: block;
`;

export interface MenuChoice {
  readonly id: string;
  readonly text: string;
  readonly disabled?: boolean;
}

/** A button that opens a list of acts. */
export function Menu({
  trigger,
  label,
  choices,
  onChoose,
}: {
  trigger: ReactNode;
  label: string;
  choices: readonly MenuChoice[];
  onChoose: (id: string) => void;
}) {
  return (
    <MenuTrigger>
      {trigger}
      <OptionsPopover>
        <AriaMenu aria-label={label} onAction={(key) => onChoose(String(key))}>
          {choices.map((choice) => (
            <Item key={choice.id} id={choice.id} isDisabled={choice.disabled ?? false}>
              {choice.text}
            </Item>
          ))}
        </AriaMenu>
      </OptionsPopover>
    </MenuTrigger>
  );
}
