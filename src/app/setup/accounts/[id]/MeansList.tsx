'use client';
import { ArrowUp, X } from 'lucide-react';
import styled from 'styled-components';
import { MEANS_KINDS, type MeansKind } from '@/core/funding';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Section } from '@/ui/text/Sheet';

export interface MeansLine {
  readonly kind: MeansKind;
  readonly label: string;
  readonly endsMonth: string;
}

interface MeansListProps {
  readonly means: readonly MeansLine[];
  readonly onChange: (means: readonly MeansLine[]) => void;
  readonly problem: string | null;
}

const Line = styled.div`
  display: grid;
  grid-template-columns: 130px minmax(120px, 220px) 150px auto auto;
  gap: 10px;
  align-items: end;
  justify-content: start;
`;

/** The means of payment, in the order in which the registrar tries them. */
export function MeansList({ means, onChange, problem }: MeansListProps) {
  const set = (place: number, change: Partial<MeansLine>) =>
    onChange(means.map((line, i) => (i === place ? { ...line, ...change } : line)));
  const up = (place: number) => {
    const next = [...means];
    const [line] = next.splice(place, 1);
    if (line) next.splice(place - 1, 0, line);
    onChange(next);
  };
  return (
    <Section aria-label="Means of payment">
      <strong>Pays by, in this order</strong>
      {means.map((line, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place in the order
        <Line key={i}>
          <Choice
            label="Kind"
            value={line.kind}
            onChange={(kind) => set(i, { kind })}
            options={MEANS_KINDS.map((kind) => ({ value: kind, text: kind }))}
          />
          <Field label="Known as" value={line.label} onChange={(label) => set(i, { label })} placeholder={line.kind} />
          {line.kind === 'card' ? (
            <Field
              label="Ends (month)"
              value={line.endsMonth}
              onChange={(endsMonth) => set(i, { endsMonth })}
              placeholder="2027-05"
            />
          ) : (
            <span />
          )}
          <Button
            data-kind="plain"
            aria-label={`Try ${line.label || line.kind} earlier`}
            isDisabled={i === 0}
            onPress={() => up(i)}
          >
            <ArrowUp size={14} aria-hidden />
          </Button>
          <Button
            data-kind="plain"
            aria-label={`Take ${line.label || line.kind} out`}
            onPress={() => onChange(means.filter((_, j) => j !== i))}
          >
            <X size={14} aria-hidden />
          </Button>
        </Line>
      ))}
      {problem && (
        <p className="caution" role="alert">
          {problem}
        </p>
      )}
      <div>
        <Button
          onPress={() =>
            onChange([...means, { kind: means.length === 0 ? 'balance' : 'card', label: '', endsMonth: '' }])
          }
        >
          Add a means of payment
        </Button>
      </div>
    </Section>
  );
}
