import type { LabelsOf } from '@yosegi/contract';
import { useLocation } from 'react-router';
import { useCommand } from '../api/client.ts';
import { Button, type ButtonProps } from '../ui/Button.tsx';
import { QuantityCell } from '../ui/Cells.tsx';
import { count } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** Puts labels into the printer's queue; where `ask` takes a number, so many of the same. */
export function LabelButton({
  ask,
  look,
  children,
}: {
  ask: LabelsOf | ((copies: number) => LabelsOf);
  look?: ButtonProps['look'];
  children?: string;
}) {
  const notify = useNotify();
  const { pathname } = useLocation();
  const screen = useTypedScreen(`labels.${pathname}`);
  const [copies, setCopies] = useTyped(screen, 'copies', '1');
  const create = useCommand('createLabelJob', (job) =>
    notify({
      text: `${count(job.count, 'label')} sent to the label printer.`,
      to: ['/devices/printer', 'Open printer'],
    }),
  );
  const asked = /^\d{1,3}$/.test(copies) ? Number(copies) : 0;
  const isFaulty = typeof ask === 'function' && (asked < 1 || asked > 200);
  return (
    <>
      {typeof ask === 'function' && (
        <Part $width={58}>
          <QuantityCell unit="each" label="Number of labels" value={copies} onChange={setCopies} />
        </Part>
      )}
      <Button
        look={look ?? 'plain'}
        isDisabled={isFaulty}
        busy={create.isPending}
        onPress={() => create.mutate({ body: { of: typeof ask === 'function' ? ask(asked) : ask } })}
      >
        {children ?? 'Print labels'}
      </Button>
      <ProblemBox error={create.error} />
    </>
  );
}
