import type { LotRow } from '@yosegi/contract';
import { useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { problemOf, useCommand } from '../api/client.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { DialogCard, Overlay } from '../ui/Modal.tsx';
import { Para, Stack } from '../ui/space.ts';
import { Row } from '../ui/text.ts';

/** Writes down what a lot is like, by the names that its item has for that. */
export function DescribeLot({ lot, onClose }: { lot: LotRow; onClose: () => void }) {
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>(lot.attributes);
  const describe = useCommand('describeLot', onClose);
  const problem = problemOf(describe.error);
  const attributes = Object.fromEntries(lot.fields.map((name) => [name, typed[name] ?? '']));
  const save = () => describe.mutate({ params: { id: lot.id }, body: { attributes } });
  return (
    <Overlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()}>
      <DialogCard>
        <Dialog>
          <Heading slot="title">
            Lot {lot.code} of {lot.item}
          </Heading>
          <Stack $gap={12} $top={12}>
            {lot.fields.length === 0 && (
              <Para>
                Nothing is recorded for its lots yet. Choose in the item what to record: colour, moisture, whatever
                helps to choose.
              </Para>
            )}
            {lot.fields.map((name, index) => (
              <Field
                key={name}
                label={name}
                autoFocus={index === 0}
                value={typed[name] ?? ''}
                onChange={(value) => setTyped({ ...typed, [name]: value })}
                onKeyDown={(event) => event.key === 'Enter' && save()}
              />
            ))}
            {problem && <Para role="alert">{problem.detail}</Para>}
          </Stack>
          <Row $top={14}>
            {lot.fields.length > 0 ? (
              <Button look="go" busy={describe.isPending} onPress={save}>
                Save
              </Button>
            ) : (
              <LinkButton to={`/stock/items/${lot.itemId}?edit=1`}>Open {lot.item}</LinkButton>
            )}
            <Button look="ghost" onPress={onClose}>
              Cancel
            </Button>
          </Row>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
