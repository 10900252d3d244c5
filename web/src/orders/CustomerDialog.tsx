import { proposedCode } from '@yosegi/core/items';
import { Dialog, Heading } from 'react-aria-components';
import { z } from 'zod';
import { problemAt, useCommand } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { Form, Wide } from '../ui/layout.ts';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

interface Props {
  /** What was looked for. */
  readonly text: string;
  readonly onDone: (made: { readonly id: number; readonly code: string; readonly name: string }) => void;
  readonly onClose: () => void;
}

const SHOWN = ['name', 'code', 'email', 'phone'];

/** A new customer with what an order cannot do without, so that nobody leaves the order for it. */
export function CustomerDialog({ text, onDone, onClose }: Props) {
  // Looked for again, what was typed of them is there again.
  const screen = useTypedScreen(`new-customer.${text.trim().toLowerCase()}`);
  const [name, setName] = useTyped(screen, 'name', text);
  const [ownCode, setCode] = useTyped(screen, 'code', null, z.string().nullable());
  const code = ownCode ?? proposedCode(name);
  const [email, setEmail] = useTyped(screen, 'email', '');
  const [phone, setPhone] = useTyped(screen, 'phone', '');
  const create = useCommand(
    'createCustomer',
    ({ id }, { body }) => onDone({ id, code: body.code, name: body.name }),
    screen.forget,
  );
  const at = (field: string) => problemAt(create.error, field);
  const isReady = code.trim() !== '' && name.trim() !== '';
  return (
    <Overlay isOpen onOpenChange={(open) => !open && onClose()} isDismissable>
      <DialogCard>
        <Dialog>
          <Heading slot="title">New customer</Heading>
          <Form
            $top={14}
            onSubmit={(event) => {
              event.preventDefault();
              if (isReady && !create.isPending)
                create.mutate({
                  body: { name: name.trim(), code: code.trim(), email: email.trim(), phone: phone.trim() },
                });
            }}
          >
            <Field label="Name" value={name} onChange={setName} autoFocus error={at('name')} />
            <Field label="Code" value={code} onChange={setCode} error={at('code')} />
            <Field label="Email" value={email} onChange={setEmail} error={at('email')} />
            <Field label="Phone" value={phone} onChange={setPhone} error={at('phone')} />
            <Wide>
              <ProblemBox error={create.error} shownAt={SHOWN} />
              <Row $top={6}>
                <Button look="go" type="submit" busy={create.isPending} isDisabled={!isReady}>
                  Add customer
                </Button>
                <Button look="ghost" slot="close">
                  Cancel
                </Button>
              </Row>
              <Faint>Addresses, discount and everything else can be filled in later, under Customers.</Faint>
            </Wide>
          </Form>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
