'use client';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from 'react';
import { ComboBox, Input, ListBox } from 'react-aria-components';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Option, OptionsPopover } from '@/ui/controls/Field';
import { report } from '@/ui/overlay/Toasts';
import { accountCommands, COMMANDS, type CommandDoes, findCommands } from './commands';
import { useLedger, useMoveDate } from './LedgerProvider';
import { namePage } from './pages';
import { showChart } from './ThemeSwitch';

const Box = styled(ComboBox)`
  position: relative;
  flex: 0 1 330px;
  min-width: 160px;
  margin-left: auto;
  @media (max-width: 640px) { order: 1; flex: 1 1 100%; }
  @media (max-width: 640px) and (max-height: 520px) { order: 0; flex: 1 1 120px; min-width: 100px; }
`;

const Line = styled(Input)`
  width: 100%;
  min-height: 34px;
  padding: 4px 28px 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  &::placeholder { color: var(--ink-soft); opacity: 1; }
  @media (max-width: 640px) { min-height: 44px; }
`;

const Key = styled.kbd`
  position: absolute;
  right: 10px;
  top: 7px;
  color: var(--ink-soft);
  font: inherit;
  pointer-events: none;
  @media (max-width: 640px) { display: none; }
`;

/** Something that may be a name: it has a dot with letters after it. */
const LIKE_A_NAME = /^[^\s/]+\.[^\s./]{2,}$/;

interface Found {
  readonly id: string;
  readonly text: string;
  readonly does: CommandDoes;
  readonly isName: boolean;
}

/** Takes back what was done last. */
export type UndoLast = () => Promise<{ readonly summary: string } | Refusal>;

/** Finds names by any part of them, and commands by the trade's words. `/` opens it. */
export function CommandBox({ undoLast, onKeys }: { undoLast: UndoLast; onKeys: () => void }) {
  const [text, setText] = useState('');
  const { items: found, isFor } = useFound(text);
  const input = useRef<HTMLInputElement>(null);
  // What Enter was pressed on before it had been looked for.
  const awaited = useRef<string | null>(null);
  const leaveSoon = useSlash(input);
  const carryOut = useCarryOut(undoLast, onKeys);
  const leave = () => {
    awaited.current = null;
    setText('');
    // The box takes the focus back when something is chosen, and would open again: it is left after that.
    leaveSoon();
  };
  const choose = (chosen: Found | undefined) => {
    awaited.current = null;
    if (!chosen) return;
    leave();
    void carryOut(chosen.does);
  };
  // Enter chooses the first that is found, however fast it follows the letters.
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') leave();
    if (event.key !== 'Enter' || text.trim() === '' || event.currentTarget.getAttribute('aria-activedescendant'))
      return;
    event.preventDefault();
    // The box would take it as the end of its search, and empty itself.
    event.stopPropagation();
    if (isFor === text) choose(found[0]);
    else awaited.current = text;
  };
  useEffect(() => {
    if (awaited.current !== null && awaited.current === isFor) choose(found[0]);
  });

  return (
    <Box
      aria-label="Find a name or a command"
      menuTrigger="focus"
      allowsEmptyCollection
      inputValue={text}
      onInputChange={(next) => {
        awaited.current = null;
        setText(next);
      }}
      items={found}
      defaultFilter={() => true}
      value={null}
      onChange={(key) => choose(found.find((item) => item.id === key))}
    >
      <Line ref={input} onKeyDownCapture={onKeyDown} placeholder="Find a name or a command" />
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

/** A slash goes to the box, wherever the focus is. Answers how the box is left in a moment, unless somebody comes back to it before. */
function useSlash(input: RefObject<HTMLInputElement | null>): () => void {
  // It is about to lose the focus.
  const leaving = useRef<ReturnType<typeof setTimeout>>(undefined);

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      const target = event.target as HTMLElement;
      // Whoever comes back before it has been left stays: the key is none of the letters that are looked for.
      if (event.key === '/' && target === input.current && leaving.current !== undefined) {
        event.preventDefault();
        clearTimeout(leaving.current);
        leaving.current = undefined;
        return;
      }
      if (event.key !== '/' || event.ctrlKey || event.metaKey || target.closest('input, textarea, [contenteditable]'))
        return;
      event.preventDefault();
      input.current?.focus();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [input]);

  return () => {
    clearTimeout(leaving.current);
    leaving.current = setTimeout(() => {
      leaving.current = undefined;
      input.current?.blur();
    }, 0);
  };
}

const Nothing = styled.p`padding: 8px 10px; color: var(--ink-soft);`;

/** What fits the letters that are typed: names first, then a look-up, then commands and accounts. */
function useFound(text: string): { readonly items: readonly Found[]; readonly isFor: string } {
  const { worker, meta } = useLedger();
  const accounts = meta?.rules.accounts;
  const [found, setFound] = useState<{ items: readonly Found[]; isFor: string }>({ items: [], isFor: '' });
  useEffect(() => {
    let stale = false;
    const find = async () => {
      const names = text.trim() === '' || !worker ? [] : await worker.find(text, 8);
      if (stale) return;
      const commands = findCommands(text, [
        ...COMMANDS,
        ...accountCommands(text.trim() === '' ? [] : (accounts ?? [])),
      ]).slice(0, 8);
      const items = [
        ...names.map(({ ascii, unicode }) => ({
          id: `name ${ascii}`,
          text: unicode,
          does: { kind: 'go' as const, href: namePage(ascii) },
          isName: true,
        })),
        ...(names.length === 0 && LIKE_A_NAME.test(text.trim())
          ? [
              {
                id: 'look up',
                text: `Look up ${text.trim()}`,
                does: { kind: 'go' as const, href: `/record/${encodeURIComponent(text.trim())}` },
                isName: false,
              },
            ]
          : []),
        ...commands.map(({ id, text: words, does }) => ({
          id: `command ${id}`,
          text: words,
          does,
          isName: false,
        })),
      ];
      setFound({ items, isFor: text });
    };
    void find();
    return () => {
      stale = true;
    };
  }, [text, worker, accounts]);
  return found;
}

/** Does what a command does. */
function useCarryOut(undoLast: UndoLast, onKeys: () => void) {
  const router = useRouter();
  const { reload } = useLedger();
  const { moveDate } = useMoveDate();
  return async (does: CommandDoes) => {
    switch (does.kind) {
      case 'go':
        router.push(does.href);
        return;
      case 'fetch':
        window.location.assign(does.href);
        return;
      case 'chart':
        showChart(does.chart);
        return;
      case 'keys':
        onKeys();
        return;
      case 'today':
        moveDate(0);
        return;
      case 'undo': {
        const answer = await undoLast();
        report(isRefusal(answer) ? { text: answer.message, problem: true } : { text: `${answer.summary}.` });
        await reload();
      }
    }
  };
}
