import { ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { Menu as AriaMenu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { Button, type ButtonProps } from './Button.tsx';
import { drop, optionLook } from './box.ts';

const Drop = styled(Popover)`${drop} min-width: 190px;`;
const List = styled(AriaMenu)`outline: none; padding: 4px 0; max-height: 70vh; overflow: auto;`;
const Item = styled(MenuItem)`
  ${optionLook} display: block; text-decoration: none; color: var(--ink); small { display: block; color: var(--ink-2); }
`;

export interface Deed {
  readonly id: string;
  readonly name: string;
  /** What it is for, in a few words. */
  readonly hint?: string;
  /** Where it leads; else `act` does it. */
  readonly to?: string;
  readonly act?: () => void;
  readonly isDisabled?: boolean;
}

interface Props extends Pick<ButtonProps, 'look'> {
  readonly label: ReactNode;
  readonly name?: string;
  readonly deeds: readonly Deed[];
}

/** A button that opens a list of deeds and places. */
export function Menu({ label, name, deeds, look = 'plain' }: Props) {
  return (
    <MenuTrigger>
      <Button look={look} {...(name ? { 'aria-label': name } : {})}>
        {label} <ChevronDown size={15} aria-hidden />
      </Button>
      <MenuList deeds={deeds} />
    </MenuTrigger>
  );
}

/** The list itself, for a trigger of another look. */
export function MenuList({ deeds }: { deeds: readonly Deed[] }) {
  const go = useNavigate();
  const act = (id: unknown) => {
    const deed = deeds.find((one) => one.id === id);
    if (deed?.to) void go(deed.to);
    else deed?.act?.();
  };
  return (
    <Drop placement="bottom start">
      <List onAction={act}>
        {deeds.map((deed) => (
          <Entry key={deed.id} deed={deed} />
        ))}
      </List>
    </Drop>
  );
}

function Entry({ deed: { id, name, hint, isDisabled = false } }: { deed: Deed }) {
  return (
    <Item id={id} textValue={name} isDisabled={isDisabled}>
      {name}
      {hint && <small>{hint}</small>}
    </Item>
  );
}
