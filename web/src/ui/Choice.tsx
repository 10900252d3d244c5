import { ChevronDown } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import {
  Autocomplete,
  Button,
  Input,
  ListBox,
  ListBoxItem,
  Popover,
  SearchField,
  Select,
  SelectValue,
  useFilter,
} from 'react-aria-components';
import styled from 'styled-components';
import { boxLook, column, drop, optionLook, unseen } from './box.ts';
import { FieldLabel, Wrong } from './Field.tsx';
import { useLetters } from './useLetters.ts';

const Wrap = styled(Select<object>)`${column} position: relative;`;
const Trigger = styled(Button)`
  ${boxLook} display: flex; align-items: center; justify-content: space-between; gap: 8px; padding: 5px 8px 5px 9px; width: 100%; text-align: left; cursor: pointer;
  > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  > svg { flex: none; color: var(--ink-3); }
  &[data-focus-visible] { outline: 2px solid var(--indigo); outline-offset: 0; }
`;
const HiddenLabel = styled(FieldLabel)`${unseen}`;
const Before = styled.span`display: contents;`;
const Drop = styled(
  Popover,
)`${drop} min-width: var(--trigger-width); max-width: min(420px, 94vw); display: flex; flex-direction: column;`;
const List = styled(ListBox<object>)`outline: none; padding: 4px 0; overflow: auto;`;
const Option = styled(ListBoxItem)`${optionLook}`;
const Find = styled(SearchField)`
  padding: 8px; border-bottom: 1px solid var(--line-soft);
  input { ${boxLook} width: 100%; padding: 5px 9px; } input:focus-visible { outline-offset: 0; }
`;

/** From how many on one looks for a choice by typing. */
const LONG = 12;

export interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly options: readonly (readonly [value: string, label: string])[];
  readonly hideLabel?: boolean;
  /** Enter walks through it on the way to the next line; arrows and space open it. */
  readonly step?: boolean;
  readonly error?: string | undefined;
  readonly isDisabled?: boolean;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLElement>) => void;
  /** What makes it a cell of a grid that draws it and knows its own keys. */
  readonly cell?: {
    readonly 'data-cell': string;
    readonly onKeyDown: (event: KeyboardEvent) => void;
    readonly 'aria-invalid': boolean;
    readonly title: string | undefined;
  };
}

/** A choice of some; a long list has a filter on top. */
export function Choice({
  label,
  value,
  onChange,
  options,
  hideLabel,
  error,
  isDisabled = false,
  ...props
}: ChoiceProps) {
  const { contains, startsWith } = useFilter({ sensitivity: 'base' });
  const byLetters = useLetters((text) => {
    const meant = options.find(([, name]) => startsWith(name, text));
    if (meant && meant[0] !== value) onChange(meant[0]);
  });
  const walk = (event: KeyboardEvent<HTMLElement>) => {
    (props.cell ?? props).onKeyDown?.(event);
    // Enter has walked on; it does not open the list as well.
    if (event.isDefaultPrevented()) event.stopPropagation();
    else if (byLetters(event)) {
      // A button would take a space within a word for a press.
      event.preventDefault();
      event.stopPropagation();
    }
  };
  const list = (
    <List items={options.map(([id, text]) => ({ id: keyOf(id), text }))}>
      {(one) => {
        const { id, text } = one as { id: string; text: string };
        return (
          <Option id={id} textValue={text}>
            {text}
          </Option>
        );
      }}
    </List>
  );
  return (
    <Wrap
      value={options.some(([one]) => one === value) ? keyOf(value) : null}
      onChange={(key) => key !== null && onChange(String(key).slice(1))}
      isInvalid={error !== undefined || props.cell?.['aria-invalid'] === true}
      isDisabled={isDisabled}
      validationBehavior="aria"
      placeholder="–"
    >
      {hideLabel ? <HiddenLabel>{label}</HiddenLabel> : <FieldLabel>{label}</FieldLabel>}
      <Before onKeyDownCapture={walk}>
        <Trigger className={props.step ? 'step' : ''} {...(props.cell ? { 'data-cell': props.cell['data-cell'] } : {})}>
          <SelectValue />
          <ChevronDown size={15} aria-hidden />
        </Trigger>
      </Before>
      <Wrong>{error}</Wrong>
      <Drop>
        {options.length > LONG ? (
          <Autocomplete filter={contains}>
            <Find aria-label={`Find in ${label}`} autoFocus>
              <Input placeholder="Enter text to find" />
            </Find>
            {list}
          </Autocomplete>
        ) : (
          list
        )}
      </Drop>
    </Wrap>
  );
}

/** A choice may be the empty text, which is no key. */
const keyOf = (value: string) => `=${value}`;
