import { Dialog, Heading } from 'react-aria-components';
import { problemAt, useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Para } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** The first labour rate, asked for where a line of labour needs one. */
export function RateDialog({ onDone, onClose }: { onDone: (rateId: number) => void; onClose: () => void }) {
  const maySetUp = useCan('set-up');
  const screen = useTypedScreen('rate.first');
  const [name, setName] = useTyped(screen, 'name', 'Labour');
  const [perHour, setPerHour] = useTyped(screen, 'perHour', '');
  const create = useCommand('createRate', ({ id }) => onDone(id), screen.forget);
  const at = (field: string) => problemAt(create.error, field);
  return (
    <Overlay isOpen onOpenChange={(open) => !open && onClose()} isDismissable>
      <DialogCard>
        <Dialog>
          <Heading slot="title">What does an hour of work cost?</Heading>
          <Para $top={8}>
            {maySetUp
              ? 'A labour line needs a rate, and there is none yet. More rates can be added under Places.'
              : 'A labour line needs a rate, and there is none yet. An owner can add one here.'}
          </Para>
          <Form
            $top={14}
            onSubmit={(event) => {
              event.preventDefault();
              if (maySetUp && !create.isPending)
                create.mutate({ body: { name: name.trim(), perHour: perHour.trim() || '0' } });
            }}
          >
            <Field label="Name of the rate" value={name} onChange={setName} error={at('name')} isDisabled={!maySetUp} />
            <Field
              label="Per hour"
              numeric
              autoFocus
              value={perHour}
              onChange={setPerHour}
              error={at('perHour')}
              isDisabled={!maySetUp}
            />
            <Wide>
              <ProblemBox error={create.error} shownAt={['name', 'perHour']} />
              <Row>
                <Button
                  look="go"
                  type="submit"
                  busy={create.isPending}
                  isDisabled={!maySetUp || name.trim() === '' || perHour.trim() === ''}
                >
                  Add rate
                </Button>
                <Button look="ghost" slot="close">
                  Cancel
                </Button>
              </Row>
            </Wide>
          </Form>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
