import { LinkButton } from './Button.tsx';
import { EmptyState } from './States.tsx';

/** An address that leads nowhere. */
export const NothingHere = () => (
  <EmptyState isPage title="Page not found" action={<LinkButton to="/today">Go to Today</LinkButton>}>
    The address may be mistyped, or what was here may be deleted. Ctrl K finds everything.
  </EmptyState>
);
