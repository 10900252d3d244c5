import { useBlocker } from 'react-router';
import { later } from '../ui/later.tsx';
import { unsaved } from '../ui/unsaved.ts';

// Fetched when it is first asked for: most pages are left without it.
const Leaving = later(() => import('./Leaving.tsx'), 'Leaving');

/** Asks once where a form with changes is left. */
export function LeaveGuard() {
  const blocker = useBlocker(
    ({ currentLocation: from, nextLocation: to }) =>
      unsaved().length > 0 && (from.pathname !== to.pathname || isEdited(from.search) !== isEdited(to.search)),
  );
  return blocker.state === 'blocked' && <Leaving stay={blocker.reset} leave={blocker.proceed} />;
}

const isEdited = (search: string) => new URLSearchParams(search).has('edit');
