'use client';
import { type ReactNode, useState } from 'react';

interface DisclosureProps {
  readonly summary: string;
  /** What a screen reader says where many stand below each other. */
  readonly label?: string;
  readonly isOpenAtFirst?: boolean;
  readonly onOpen?: () => void;
  readonly children: ReactNode;
}

/** More of something, drawn only once it is opened: a list of hundreds holds no more than their summaries. */
export function Disclosure({ summary, label, isOpenAtFirst = false, onOpen, children }: DisclosureProps) {
  const [isOpen, setOpen] = useState(isOpenAtFirst);
  return (
    <details
      open={isOpen}
      onToggle={(event) => {
        setOpen(event.currentTarget.open);
        if (event.currentTarget.open) onOpen?.();
      }}
    >
      <summary aria-label={label}>{summary}</summary>
      {isOpen && children}
    </details>
  );
}
