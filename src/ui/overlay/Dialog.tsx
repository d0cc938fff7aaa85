'use client';
import type { ReactNode } from 'react';
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: grid;
  place-items: start center;
  padding-top: 10vh;
  background: rgb(10 25 35 / 38%);
`;

const Sheet = styled(Modal)`
  width: min(560px, calc(100vw - 32px));
  max-height: 80vh;
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 4px;
  box-shadow: 0 12px 40px rgb(10 25 35 / 30%);
`;

/** The line of buttons at the foot of a dialog or form. */
export const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
`;

const Body = styled(AriaDialog)`
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 20px 24px;
  outline: none;
  /* What a dialog can do stays in sight, however long the dialog is. */
  & > ${Actions}:last-child, & > form > div > ${Actions}:last-child {
    position: sticky;
    bottom: 0;
    z-index: 1;
    margin: 0 -24px -20px;
    padding: 12px 24px 16px;
    background: var(--sheet);
    border-top: 1px solid var(--rule);
  }
`;

const Title = styled(Heading)`font-size: 1.15rem;`;

/** A dialog: only for what costs money, cannot be undone, or asks one thing. Escape closes it. */
export function Dialog({
  title,
  isOpen,
  onClose,
  children,
}: {
  title: string;
  isOpen: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Veil isOpen={isOpen} onOpenChange={(open) => !open && onClose()} isDismissable>
      <Sheet>
        <Body>
          <Title slot="title">{title}</Title>
          {children}
        </Body>
      </Sheet>
    </Veil>
  );
}
