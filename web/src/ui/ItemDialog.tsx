import { Item } from '@yosegi/contract';
import { proposedCode } from '@yosegi/core/items';
import { useEffect, useState } from 'react';
import { Dialog, Heading } from 'react-aria-components';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Button } from './Button.tsx';
import { Choice } from './Choice.tsx';
import { Field } from './Field.tsx';
import { Form, Wide } from './layout.ts';
import { DialogCard, Overlay } from './Modal.tsx';
import { ProblemBox } from './Problem.tsx';
import { Tile } from './Tile.tsx';
import { Faint, Row } from './text.ts';
import { useTyped, useTypedScreen } from './useTypedScreen.ts';

/** A new item with what it cannot do without, so that nobody leaves the screen they work on for it. */
export function ItemDialog({
  text,
  source: begun = 'bought',
  onDone,
  onClose,
}: {
  text: string;
  /** How what is looked for here usually comes. */
  source?: Item['source'];
  onDone: (item: Item) => void;
  onClose: () => void;
}) {
  const units = useQuestion('units', {}).data ?? [];
  // Looked for again, what was typed of it is there again.
  const screen = useTypedScreen(`new-item.${text.trim().toLowerCase()}`);
  const looksLikeCode = /^[A-Z0-9][^\s/]*$/.test(text);
  const [ownCode, setCode] = useTyped(screen, 'code', looksLikeCode ? text : null, z.string().nullable());
  const [name, setName] = useTyped(screen, 'name', looksLikeCode ? '' : text);
  // A code is proposed from the name until one is typed.
  const code = ownCode ?? proposedCode(name);
  const [unitId, setUnitId] = useTyped(screen, 'unitId', '1');
  const [source, setSource] = useTyped(screen, 'source', begun, Item.shape.source);
  const [cost, setCost] = useTyped(screen, 'cost', '');
  const [made, setMade] = useState<number | null>(null);
  const create = useCommand('createItem', ({ id }) => setMade(id), screen.forget);
  const item = useQuestion('item', { params: { id: made ?? 0 } }, { enabled: made !== null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: told once, when it is there
  useEffect(() => {
    if (item.data) onDone(item.data);
  }, [item.data]);
  const at = (field: string) => problemAt(create.error, field);
  const submit = () =>
    create.mutate({
      body: {
        code: code.trim(),
        name: name.trim(),
        unitId: Number(unitId),
        source,
        homeBinId: null,
        sellPrice: null,
        reorderPoint: null,
        standardCost: cost.trim() || null,
        note: '',
      },
    });
  return (
    <Overlay isOpen onOpenChange={(open) => !open && onClose()} isDismissable>
      <DialogCard>
        <Dialog>
          <Row $gap={12}>
            <Tile code={code || 'new'} size={40} />
            <Heading slot="title">New item</Heading>
          </Row>
          <Form
            $top={14}
            onSubmit={(event) => {
              event.preventDefault();
              if (made !== null) void item.refetch();
              else if (code.trim() && name.trim()) submit();
            }}
          >
            <Field label="Name" value={name} onChange={setName} autoFocus error={at('name')} />
            <Field label="Code" value={code} onChange={setCode} error={at('code')} />
            <Choice
              label="Stock unit"
              value={unitId}
              onChange={setUnitId}
              options={units.map((unit) => [String(unit.id), unit.name])}
            />
            <Choice
              label="Bought or made"
              value={source}
              onChange={(value) => setSource(value as Item['source'])}
              options={[
                ['bought', 'bought'],
                ['made', 'made here'],
                ['both', 'both'],
              ]}
            />
            <Field
              label="Unit cost, as far as you know"
              numeric
              value={cost}
              onChange={setCost}
              error={at('standardCost')}
            />
            <Wide>
              <ProblemBox error={create.error ?? item.error} shownAt={['code', 'name', 'standardCost']} />
              <Row $top={6}>
                <Button
                  look="go"
                  type="submit"
                  busy={create.isPending || item.isFetching}
                  isDisabled={!code.trim() || !name.trim()}
                >
                  Add and use it
                </Button>
                <Button look="ghost" slot="close">
                  Cancel
                </Button>
              </Row>
              <Faint>You can fill in the rest later, under Stock.</Faint>
            </Wide>
          </Form>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}
