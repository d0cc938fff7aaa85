'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { ComboBox, Input, ListBox } from 'react-aria-components';
import styled from 'styled-components';
import { Option, OptionsPopover } from '@/ui/controls/Field';
import { findCommands } from './commands';
import { useLedger } from './LedgerProvider';

const Box = styled(ComboBox)`
  position: relative;
  flex: 0 1 330px;
  min-width: 160px;
  margin-left: auto;
`;

const Line = styled(Input)`
  width: 100%;
  min-height: 34px;
  padding: 4px 28px 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  &::placeholder { color: var(--ink-soft); opacity: 1; }
`;

const Key = styled.kbd`
  position: absolute;
  right: 10px;
  top: 7px;
  color: var(--ink-soft);
  font: inherit;
  pointer-events: none;
`;

/** Something that may be a name: it has a dot with letters after it. */
const LIKE_A_NAME = /^[^\s/]+\.[^\s./]{2,}$/;

interface Found {
  readonly id: string;
  readonly text: string;
  readonly href: string;
  readonly isName: boolean;
}

/** Finds names by any part of them, and commands by the trade's words. `/` opens it. */
export function CommandBox() {
  const router = useRouter();
  const { worker } = useLedger();
  const [text, setText] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.key !== '/' || event.ctrlKey || event.metaKey || target.closest('input, textarea, [contenteditable]'))
        return;
      event.preventDefault();
      input.current?.focus();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);

  useEffect(() => {
    let stale = false;
    const find = async () => {
      const names = text.trim() === '' || !worker ? [] : await worker.find(text, 8);
      if (stale) return;
      const commands = findCommands(text).slice(0, 8);
      setFound([
        ...names.map(({ ascii, unicode }) => ({
          id: `name ${ascii}`,
          text: unicode,
          href: `/ledger/${encodeURIComponent(ascii)}`,
          isName: true,
        })),
        ...(names.length === 0 && LIKE_A_NAME.test(text.trim())
          ? [
              {
                id: 'look up',
                text: `Look up ${text.trim()}`,
                href: `/record/${encodeURIComponent(text.trim())}`,
                isName: false,
              },
            ]
          : []),
        ...commands.map(({ id, text: words, href }) => ({
          id: `command ${id}`,
          text: words,
          href,
          isName: false,
        })),
      ]);
    };
    void find();
    return () => {
      stale = true;
    };
  }, [text, worker]);

  return (
    <Box
      aria-label="Find a name or a command"
      menuTrigger="focus"
      allowsEmptyCollection
      inputValue={text}
      onInputChange={setText}
      items={found}
      defaultFilter={() => true}
      value={null}
      onChange={(key) => {
        const chosen = found.find((item) => item.id === key);
        if (!chosen) return;
        setText('');
        router.push(chosen.href);
        // The box takes the focus back when something is chosen, and would open again: it is left after that.
        setTimeout(() => input.current?.blur(), 0);
      }}
    >
      <Line ref={input} placeholder="Find a name or a command" />
      <Key aria-hidden>/</Key>
      <OptionsPopover>
        <ListBox<Found>
          renderEmptyState={() => <Nothing>Nothing by these letters. Add names brings in new ones.</Nothing>}
        >
          {(item) => (
            <Option id={item.id} textValue={item.text}>
              <span className={item.isName ? 'name' : undefined}>{item.text}</span>
            </Option>
          )}
        </ListBox>
      </OptionsPopover>
    </Box>
  );
}

const Nothing = styled.p`padding: 8px 10px; color: var(--ink-soft);`;
