'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import styled from 'styled-components';
import { USUAL_PATTERNS } from '@/core/acquiring';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Menu } from '@/ui/overlay/Menu';
import { formatAmount } from '@/ui/text/figures';
import { yearsWords } from '@/ui/text/words';
import type { OfferedEnding } from '@/usecases/acquiring/endings';
import type { IdeaSetRow } from '@/usecases/acquiring/ideas';
import { toldRefused } from '../acts/toldRefused';
import { useBusy } from '../acts/useBusy';
import { useLedger } from '../frame/LedgerProvider';
import { PATTERN_WORDS } from './acquireWords';
import { removeIdeasAction, saveIdeasAction } from './actions';

const Box = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 12px;
  align-items: end;
  padding: 14px 26px 10px;
  border-bottom: 1px solid var(--rule);
  & > details { grid-column: 1 / -1; }
  & > div:first-child textarea { min-height: 34px; }
  @media (max-width: 640px) {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px 14px;
    & > div:first-child textarea { min-height: 58px; }
  }
`;

const More = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 10px 20px;
  padding: 8px 0 4px;
  & > div { display: flex; flex-direction: column; gap: 6px; min-width: 0; }
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); }
`;

const Choices = styled.div`display: flex; flex-wrap: wrap; gap: 4px 14px; align-items: center;`;
const Buttons = styled.div`display: flex; flex-wrap: wrap; gap: 8px;`;

const YEARS = Array.from({ length: 10 }, (_, i) => ({ value: String(i + 1), text: `held ${yearsWords(i + 1)}` }));
/** Endings that are chosen at first: those of most own names. */
const FIRST_ENDINGS = 6;

interface IdeasPartProps {
  readonly sets: readonly IdeaSetRow[];
  readonly set: IdeaSetRow | null;
  readonly endings: readonly OfferedEnding[];
}

/** One field of ideas; what is made of them, under which endings, and for how long they would be held. */
export function IdeasPart({ sets, set, endings }: IdeasPartProps) {
  const router = useRouter();
  const [ideas, setIdeas] = useState(set?.ideas ?? '');
  const [patterns, setPatterns] = useState<readonly string[]>(set?.patterns ?? ['{a}', '{a}{b}']);
  const [chosen, setChosen] = useState<readonly string[]>(
    set?.endings ?? endings.slice(0, FIRST_ENDINGS).map(({ ending }) => ending),
  );
  const [years, setYears] = useState(String(set?.heldYears ?? 5));
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, during] = useBusy();

  const save = async () => {
    const answer = await during(
      saveIdeasAction(set?.id ?? null, {
        ideas,
        patterns,
        endings: chosen,
        heldYears: Number(years),
      }),
    );
    setProblem(isRefusal(answer) ? answer.message : null);
    if (isRefusal(answer)) return;
    if (answer === set?.id) window.location.assign(`/acquire?set=${answer}`);
    else router.push(`/acquire?set=${answer}`);
  };
  const choose = async (id: string) => {
    if (id === 'away' && set && toldRefused(await removeIdeasAction(set.id))) return;
    router.push(id === 'away' ? '/acquire' : `/acquire?set=${id}`);
    if (id === 'away') router.refresh();
  };
  const words = patterns.map((pattern) => PATTERN_WORDS[pattern] ?? pattern).join(' · ');
  return (
    <Box
      aria-label="Ideas"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Field
        label="Ideas: words, or whole names"
        value={ideas}
        onChange={setIdeas}
        problem={problem}
        rows={ideas.length > 120 ? 4 : 1}
        mono
        placeholder="tern, cairn, wrack, harbour, loft"
      />
      <Buttons>
        <Choice label="Held" hideLabel value={years} onChange={setYears} options={YEARS} />
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          {set ? 'Look these up' : 'Look them up'}
        </Button>
        {sets.length > 0 && (
          <Menu
            trigger={<Button>Kept ideas</Button>}
            label="Kept ideas"
            choices={[
              { id: 'new', text: 'Begin with new ideas' },
              ...sets.map(({ id, label }) => ({ id: String(id), text: label })),
              ...(set ? [{ id: 'away', text: `Throw “${set.label}” away` }] : []),
            ]}
            onChoose={(id) => void choose(id)}
          />
        )}
      </Buttons>
      <details>
        <summary>
          {words} under {chosen.length === 0 ? 'no ending yet' : chosen.map((ending) => `.${ending}`).join(' ')}
        </summary>
        <More>
          <Patterns patterns={patterns} onChange={setPatterns} />
          <Endings endings={endings} chosen={chosen} onChange={setChosen} />
        </More>
      </details>
    </Box>
  );
}

/** Patterns that ship, to be taken, and one's own. */
function Patterns({ patterns, onChange }: { patterns: readonly string[]; onChange: (patterns: string[]) => void }) {
  const own = patterns.filter((pattern) => !(USUAL_PATTERNS as readonly string[]).includes(pattern));
  const usual = patterns.filter((pattern) => !own.includes(pattern));
  return (
    <div>
      <span className="soft">How words are put together</span>
      <Choices>
        {USUAL_PATTERNS.map((pattern) => (
          <Check
            key={pattern}
            isSelected={patterns.includes(pattern)}
            onChange={(isOn) => onChange(isOn ? [...patterns, pattern] : patterns.filter((one) => one !== pattern))}
          >
            {PATTERN_WORDS[pattern]} <span className="name soft">{pattern}</span>
          </Check>
        ))}
      </Choices>
      <Field
        label="Patterns of your own"
        defaultValue={own.join(' ')}
        onChange={(text) => onChange([...usual, ...text.split(/\s+/).filter((one) => one !== '')])}
        hint="{a}, {b} and {c} are words, {a:1} the first letter of one: my{a}, {a}{b}s"
        mono
      />
    </div>
  );
}

interface EndingsProps {
  readonly endings: readonly OfferedEnding[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: string[]) => void;
}

/** Endings that a price list has, taken by price, by length, by one's own; others as they are typed. */
function Endings({ endings, chosen, onChange }: EndingsProps) {
  const { homeCurrency } = useLedger();
  const [typed, setTyped] = useState(chosen.join(' '));
  const set = (next: readonly string[]) => {
    onChange([...next]);
    setTyped(next.join(' '));
  };
  const ofAll = (keep: (ending: OfferedEnding) => boolean) => set(endings.filter(keep).map(({ ending }) => ending));
  const prices = endings.flatMap(({ fiveYearsMinor }) => fiveYearsMinor ?? []).sort((a, b) => a - b);
  const middle = prices[Math.floor(prices.length / 2)] ?? 0;
  const takes: Readonly<Record<string, () => void>> = {
    all: () => ofAll(() => true),
    own: () => ofAll(({ own }) => own > 0),
    cheap: () => ofAll(({ fiveYearsMinor }) => fiveYearsMinor !== null && fiveYearsMinor <= middle),
    short: () => ofAll(({ ending }) => ending.length === 2),
  };
  return (
    <div>
      <Field
        label="Endings"
        value={typed}
        onChange={(text) => {
          setTyped(text);
          onChange(
            text
              .toLowerCase()
              .split(/[\s,;]+/)
              .flatMap(readEndings),
          );
        }}
        mono
      />
      <Menu
        trigger={<Button>Take endings</Button>}
        label="Take endings"
        choices={[
          { id: 'all', text: `All ${endings.length} of the price lists` },
          { id: 'own', text: 'Those of your own names' },
          {
            id: 'cheap',
            text: `The cheaper half: up to ${formatAmount({ minor: middle, currency: homeCurrency })} for five years`,
          },
          { id: 'short', text: 'Of two letters' },
        ]}
        onChoose={(id) => takes[id]?.()}
      />
    </div>
  );
}

/** An ending as it is typed: `.co.uk` is one, and so is `com`. */
function readEndings(text: string): string[] {
  const ending = text.trim().replace(/^\./, '');
  return ending === '' ? [] : [ending];
}
