import type { LabelsOf } from '@yosegi/contract';
import { useCommand } from '../api/client.ts';
import { Button, type ButtonProps } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';

/** Puts labels into the printer's queue. */
export function LabelButton({ ask, look, children }: { ask: LabelsOf; look?: ButtonProps['look']; children?: string }) {
  const notify = useNotify();
  const create = useCommand('createLabelJob', (job) =>
    notify({ text: `${count(job.count, 'label')} wait at the label printer.`, to: ['/devices/printer', 'See them'] }),
  );
  return (
    <>
      <Button look={look ?? 'plain'} busy={create.isPending} onPress={() => create.mutate({ body: { of: ask } })}>
        {children ?? 'Labels'}
      </Button>
      <ProblemBox error={create.error} />
    </>
  );
}
