import { LinkButton } from './Button.tsx';
import { EmptyState } from './States.tsx';

/** An address that leads nowhere. */
export const NothingHere = () => (
  <EmptyState isPage title="There is nothing here" action={<LinkButton to="/today">Go to Today</LinkButton>}>
    The address may be mistyped, or what was here is gone. Ctrl K finds everything.
  </EmptyState>
);
