'use client';
import {
  Button as AriaButton,
  Text,
  UNSTABLE_Toast as Toast,
  UNSTABLE_ToastContent as ToastContent,
  UNSTABLE_ToastQueue as ToastQueue,
  UNSTABLE_ToastRegion as ToastRegion,
} from 'react-aria-components';
import styled from 'styled-components';
import { Button } from '../controls/Button';

/** A short report of what was done, with a way back where there is one. */
export interface Report {
  readonly text: string;
  readonly problem?: boolean;
  readonly undo?: () => void;
}

const queue = new ToastQueue<Report>({ maxVisibleToasts: 3 });

/** Shows a report. One that can be undone stays longer. */
export function report(content: Report): void {
  queue.add(content, { timeout: content.undo || content.problem ? 15_000 : 6_000 });
}

const Region = styled(ToastRegion<Report>)`
  position: fixed;
  right: 16px;
  bottom: 60px;
  z-index: 30;
  display: flex;
  flex-direction: column;
  gap: 8px;
  outline: none;
`;

const Slip = styled(Toast<Report>)`
  display: flex;
  gap: 12px;
  align-items: center;
  max-width: 460px;
  padding: 10px 14px;
  border: 1px solid var(--rule);
  border-left: 4px solid var(--bearing);
  border-radius: 3px;
  background: var(--sheet);
  box-shadow: 0 4px 16px rgb(10 25 35 / 22%);
  &[data-problem='true'] { border-left-color: var(--caution); }
`;

const Close = styled(
  AriaButton,
)`border: 0; background: none; cursor: pointer; color: var(--ink-soft); padding: 2px 6px;`;

/** Where reports appear, above the totals. */
export function Toasts() {
  return (
    <Region queue={queue} aria-label="Reports">
      {({ toast }) => (
        <Slip toast={toast} data-problem={toast.content.problem ?? false}>
          <ToastContent>
            <Text slot="title">{toast.content.text}</Text>
          </ToastContent>
          {toast.content.undo && (
            <Button
              onPress={() => {
                toast.content.undo?.();
                queue.close(toast.key);
              }}
            >
              Undo
            </Button>
          )}
          <Close slot="close" aria-label="Close this report">
            ×
          </Close>
        </Slip>
      )}
    </Region>
  );
}
