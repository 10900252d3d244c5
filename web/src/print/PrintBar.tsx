import styled from 'styled-components';
import { Button, LinkButton } from '../ui/Button.tsx';

const Bar = styled.div`padding: 12px 24px; display: flex; gap: 10px; background: var(--birch); @media print { display: none; }`;

/** What stands above a sheet on screen and is not printed: print it, or go back to what it is a sheet of. */
export function PrintBar({ to, back }: { to: string; back: string }) {
  return (
    <Bar>
      <Button look="go" onPress={() => window.print()}>
        Print
      </Button>
      <LinkButton to={to}>Back to {back}</LinkButton>
    </Bar>
  );
}
