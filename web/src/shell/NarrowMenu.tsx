import { Menu as MenuIcon } from 'lucide-react';
import { MenuTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { type Deed, MenuList } from '../ui/Menu.tsx';

const Opener = styled(Button)`
  && { border-color: var(--on-dark-line); background: transparent; color: var(--on-dark); min-height: 44px; min-width: 44px; }
`;

/** All stations and what is beside them, where the band has no room for them. */
export function NarrowMenu({ here, deeds }: { here: string; deeds: readonly Deed[] }) {
  return (
    <MenuTrigger>
      <Opener aria-label={`${here}. All stations`}>
        <MenuIcon size={18} aria-hidden /> {here}
      </Opener>
      <MenuList deeds={deeds} />
    </MenuTrigger>
  );
}
