import type { BuildRow } from '@yosegi/contract';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';

/** Sends a planned build to the bench: all of it, or as many as the parts allow. */
export function StartButton({ build }: { build: BuildRow }) {
  const format = useFormat();
  const notify = useNotify();
  const start = useCommand('startBuild', (started) =>
    notify({ text: `${started.number} started. Its parts are promised.` }),
  );
  const some = build.waiting.length > 0;
  const quantity = some && build.canStart !== null ? { quantity: build.canStart } : {};
  if (problemOf(start.error)) return <LinkButton to={`/build/${build.id}`}>Short of parts</LinkButton>;
  return (
    <Button
      look={some ? 'plain' : 'go'}
      busy={start.isPending}
      onPress={() => start.mutate({ params: { id: build.id }, body: { version: build.version, ...quantity } })}
      aria-label={
        some ? `Start ${format.number(build.canStart ?? '0')} now, ${build.number}` : `Send to bench, ${build.number}`
      }
    >
      {some ? `Start ${format.number(build.canStart ?? '0')} now` : 'Send to bench'}
    </Button>
  );
}
