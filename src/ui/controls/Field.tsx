'use client';
import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import {
  Button as AriaButton,
  FieldError,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
  Text,
  TextArea,
  TextField,
  type TextFieldProps,
} from 'react-aria-components';
import styled, { css } from 'styled-components';

const box = css`
  min-height: 32px;
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  width: 100%;
  &::placeholder { color: var(--ink-soft); opacity: 1; }
  &[data-hovered] { border-color: var(--ink-soft); }
  &[data-invalid] { border-color: var(--caution); }
`;

const Column = css`
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
`;

const StyledField = styled(TextField)`${Column}`;
const StyledLabel = styled(Label)`color: var(--ink-soft); font-size: 0.9rem;`;
const Hint = styled(Text)`color: var(--ink-soft); font-size: 0.86rem;`;
const Problem = styled(FieldError)`color: var(--caution); font-size: 0.9rem;`;
export const InputBox = styled(Input)`${box}`;
const AreaBox = styled(TextArea)`${box} min-height: 92px; resize: vertical; line-height: 1.5;`;

export interface FieldProps extends TextFieldProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly problem?: string | null;
  readonly rows?: number;
  readonly placeholder?: string;
  readonly mono?: boolean;
  /** The label is for screen readers: a heading says it to the eye. */
  readonly hideLabel?: boolean;
}

/** A labelled line or area of text with its hint and, when the command refused it, the reason. */
export function Field({ label, hint, problem, rows, placeholder, mono, hideLabel, ...props }: FieldProps) {
  const className = mono ? 'name' : undefined;
  return (
    <StyledField validationBehavior="aria" {...props} isInvalid={problem ? true : props.isInvalid}>
      <StyledLabel className={hideLabel ? 'visually-hidden' : undefined}>{label}</StyledLabel>
      {rows ? (
        <AreaBox rows={rows} placeholder={placeholder} className={className} spellCheck={false} />
      ) : (
        <InputBox placeholder={placeholder} className={className} />
      )}
      {hint && <Hint slot="description">{hint}</Hint>}
      <Problem>{problem}</Problem>
    </StyledField>
  );
}

const StyledSelect = styled(Select)`${Column}`;
const SelectButton = styled(AriaButton)`
  ${box}
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  cursor: pointer;
  text-align: left;
`;

export const OptionsPopover = styled(Popover)`
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  box-shadow: 0 4px 16px rgb(10 25 35 / 18%);
  padding: 4px;
  outline: none;
`;

export const Option = styled(ListBoxItem)`
  padding: 5px 10px;
  border-radius: 2px;
  cursor: pointer;
  &[data-focused] { background: var(--bearing-pale); outline: none; }
  &[data-selected] { font-weight: 600; }
`;

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T | null;
  readonly options: readonly { readonly value: T; readonly text: string }[];
  readonly onChange: (value: T) => void;
  readonly name?: string;
  readonly hideLabel?: boolean;
  readonly placeholder?: string;
  readonly hint?: string;
  readonly problem?: string | null;
}

/** A labelled choice of one out of a few. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  name,
  hideLabel,
  placeholder,
  hint,
  problem,
}: ChoiceProps<T>) {
  return (
    <StyledSelect
      value={value}
      onChange={(key) => onChange(key as T)}
      name={name}
      placeholder={placeholder}
      validationBehavior="aria"
      isInvalid={problem ? true : undefined}
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <StyledLabel>{label}</StyledLabel>}
      <SelectButton>
        <SelectValue />
        <ChevronDown size={14} aria-hidden />
      </SelectButton>
      {hint && <Hint slot="description">{hint}</Hint>}
      <Problem>{problem}</Problem>
      <OptionsPopover>
        <ListBox>
          {options.map((option) => (
            <Option key={option.value} id={option.value} textValue={option.text}>
              {option.text}
            </Option>
          ))}
        </ListBox>
      </OptionsPopover>
    </StyledSelect>
  );
}
