'use client';
import { type ReactNode, useEffect, useState } from 'react';
import { FieldError, Label, Slider, SliderThumb, SliderTrack, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { InputBox } from './Field';

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 92px;
  gap: 0 12px;
  align-items: center;
  padding-block: 7px 6px;
  border-bottom: 1px solid var(--rule);
`;

const About = styled.p`
  grid-column: 1 / -1;
  color: var(--ink-soft);
  font-size: 0.9rem;
  & b { color: var(--ink); font-weight: 600; }
`;

const Named = styled(Label)`font-weight: 600;`;

const Problem = styled(FieldError)`grid-column: 1 / -1; color: var(--caution); font-size: 0.9rem;`;

const Track = styled(SliderTrack)`
  grid-column: 1 / -1;
  height: 20px;
  &::before { content: ''; position: absolute; inset: 9px 0 auto; height: 2px; background: var(--rule); }
`;

/** What is believed likely: a stretch of land on the line. */
const Likely = styled.i`
  position: absolute;
  top: 6px;
  height: 8px;
  border: 1px solid var(--land-edge);
  background: var(--land);
`;

const Thumb = styled(SliderThumb)`
  top: 10px;
  width: 10px;
  height: 18px;
  border-radius: 2px;
  background: var(--ink);
  cursor: ew-resize;
  &[data-focus-visible] { outline: 2px solid var(--bearing); outline-offset: 2px; }
`;

const Typed = styled(
  InputBox,
)`text-align: right; font-variant-numeric: tabular-nums; padding-block: 2px; min-height: 28px;`;

interface MovableFigureProps {
  readonly label: string;
  readonly value: number;
  /** The ends of the slider; what is typed may lie beyond them. */
  readonly least: number;
  readonly most: number;
  /** From where to where it may be typed. */
  readonly limits: readonly [number, number];
  /** Equal steps of the slider: of the figure, or where it `grows`, of its logarithm. */
  readonly steps?: number;
  readonly grows?: boolean;
  /** Where the figure is believed to lie. */
  readonly likely?: readonly [number, number] | null;
  /** How it is written and read; reading answers `null` for what is none. */
  readonly write: (value: number) => string;
  readonly read: (text: string) => number | null;
  /** Where it comes from. */
  readonly about: ReactNode;
  readonly onChange: (value: number) => void;
}

/** An assumption that is moved by hand or typed, with where it comes from and where it is believed to lie. */
export function MovableFigure(props: MovableFigureProps) {
  const { label, value, least, most, limits, steps = 200, grows = false, likely, write, read, about, onChange } = props;
  const [typed, setTyped] = useState<string | null>(null);
  // What was typed stands as long as it is being typed.
  const [problem, setProblem] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another value is shown as it is
  useEffect(() => {
    setTyped(null);
    setProblem(null);
  }, [value]);
  const [low, high] = grows ? [Math.log(least), Math.log(most)] : [least, most];
  const placeOf = (of: number) => {
    const bounded = Math.min(most, Math.max(least, of));
    return ((grows ? Math.log(bounded) : bounded) - low) / (high - low);
  };
  const at = (place: number) => {
    const moved = low + (place / steps) * (high - low);
    return grows ? Math.exp(moved) : moved;
  };
  const leave = () => {
    if (typed === null) return;
    const figure = read(typed);
    const isRead = figure !== null && figure >= limits[0] && figure <= limits[1];
    setProblem(isRead ? null : `Write ${write(limits[0])} to ${write(limits[1])}.`);
    if (!isRead) return;
    setTyped(null);
    if (figure !== value) onChange(figure);
  };
  return (
    <Row>
      <TextField
        value={typed ?? write(value)}
        onChange={setTyped}
        onBlur={leave}
        onKeyDown={(event) => event.key === 'Enter' && leave()}
        isInvalid={problem !== null}
        validationBehavior="aria"
        style={{ display: 'contents' }}
      >
        <Named>{label}</Named>
        <Typed inputMode="decimal" />
        <Problem>{problem}</Problem>
      </TextField>
      <Slider
        aria-label={`${label}, to be moved`}
        minValue={0}
        maxValue={steps}
        step={1}
        value={Math.round(placeOf(value) * steps)}
        onChange={(place) => onChange(at(Number(place)))}
        style={{ gridColumn: '1 / -1' }}
      >
        <Track>
          {likely && (
            <Likely
              aria-hidden
              style={{
                left: `${100 * placeOf(likely[0])}%`,
                width: `${Math.max(1, 100 * (placeOf(likely[1]) - placeOf(likely[0])))}%`,
              }}
            />
          )}
          <Thumb aria-label={label} />
        </Track>
      </Slider>
      <About>{about}</About>
    </Row>
  );
}
