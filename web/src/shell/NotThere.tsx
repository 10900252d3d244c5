import { useRouteError } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { NothingHere } from '../ui/NothingHere.tsx';
import { EmptyState } from '../ui/States.tsx';

/** An address without anything, or a screen that broke or could not be fetched. */
export function NotThere({ broken = false }: { broken?: boolean }) {
  const error = useRouteError();
  if (!broken) return <NothingHere />;
  return (
    <EmptyState
      isPage
      title="Something went wrong on this screen"
      action={<Button onPress={() => window.location.reload()}>Reload</Button>}
    >
      Nothing is lost. What was saved is on the server, and what you typed is on this machine.{' '}
      {error instanceof Error ? error.message : ''}
    </EmptyState>
  );
}
