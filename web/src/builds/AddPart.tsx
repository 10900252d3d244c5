import { type BuildDetail, Item } from '@yosegi/contract';
import { type FormEvent, useRef } from 'react';
import { z } from 'zod';
import { problemAt, useCommand, useQuestion } from '../api/client.ts';
import { Refusal } from '../lines/Refusal.tsx';
import { TrackedOut } from '../lines/TrackedOut.tsx';
import { NOTHING_TYPED, namedOf, TypedTrack, withScan } from '../lines/typed.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { type Format, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { plainTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.ts';
import { H2, Part } from '../ui/space.ts';
import { Row } from '../ui/text.ts';
import { type TypedScreen, useTyped } from '../ui/useTypedScreen.ts';

interface Props {
  readonly build: Pick<BuildDetail, 'id' | 'number' | 'state'>;
  /** Where what is typed stays until the part is added. */
  readonly screen: TypedScreen;
  readonly onDone: () => void;
}

/** One more part that the work turned out to need: what, how much, from where, and why. */
export function AddPart({ build, screen, onDone }: Props) {
  const format = useFormat();
  const notify = useNotify();
  const [item, setItem] = useTyped(screen, 'item', null, Item.nullable());
  const [quantity, setQuantity] = useTyped(screen, 'quantity', '1');
  const [because, setBecause] = useTyped(screen, 'because', '');
  const [from, setFrom] = useTyped(screen, 'from', null, z.string().nullable());
  const [track, setTrack] = useTyped(screen, 'track', NOTHING_TYPED, TypedTrack);
  const bins = useQuestion('itemBins', { params: { id: item?.id ?? 0 } }, { enabled: item !== null });
  const shelves = (bins.data ?? []).filter(({ kind, build: holder }) => kind === 'shelf' && holder === null);
  const home = shelves.find(({ binId }) => binId === item?.homeBinId) ?? shelves[0];
  const binId = build.state === 'on-bench' ? (from ?? String(home?.binId ?? '')) : '';
  const close = () => {
    onDone();
    screen.forget();
  };
  const add = useCommand('addPart', ({ document }) => {
    notify({
      text: `${quantity} × ${item?.name} ${document ? 'is on the bench of' : 'is to be picked for'} ${build.number}.`,
      ...(document ? { documentId: document.id } : {}),
    });
    close();
  });
  const quantityField = useRef<HTMLInputElement>(null);
  const at = (name: string) => problemAt(add.error, name);
  const submit = (override?: { reason: string }) => {
    if (!item || add.isPending) return;
    add.mutate({
      params: { id: build.id },
      body: {
        itemId: item.id,
        quantity: plainTyped(quantity, item),
        because: because.trim(),
        binId: Number(binId) || null,
        ...(binId ? namedOf(item, track) : {}),
        ...(override ? { override } : {}),
      },
    });
  };
  return (
    <Part $top={8}>
      <H2 $bottom={6}>Add a part</H2>
      <Row
        as="form"
        $gap={8}
        $wrap
        $end
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          submit();
        }}
      >
        <Part $width={260}>
          <ItemPicker
            label="Which part"
            placeholder="Code, name or scan"
            chosen={item ? `${item.name} · ${item.code}` : ''}
            autoFocus
            counted
            error={at('itemId')}
            onPick={(picked, scan, many) => {
              setItem(picked);
              if (many) setQuantity(many);
              quantityField.current?.focus();
              setFrom(null);
              setTrack(scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED);
            }}
          />
        </Part>
        <Part $width={100}>
          <Field
            label="Quantity"
            numeric
            value={quantity}
            onChange={setQuantity}
            inputRef={quantityField}
            suffix={item?.unit}
            error={at('quantity')}
          />
        </Part>
        {build.state === 'on-bench' && (
          <Part $width={210}>
            <Choice
              label="From"
              value={binId}
              onChange={setFrom}
              options={[...shelves.map((bin) => binOption(format, bin, item)), ['', 'to be picked later'] as const]}
              error={at('binId')}
            />
          </Part>
        )}
        <Part $width={220}>
          <Field label="Reason" value={because} onChange={setBecause} error={at('because')} />
        </Part>
        <Button type="submit" busy={add.isPending} isDisabled={!item}>
          Add part
        </Button>
        <Button look="ghost" onPress={close}>
          Cancel
        </Button>
      </Row>
      {item && binId && item.tracking !== 'none' && (
        <TrackedOut
          item={item}
          binId={binId}
          typed={track}
          onChange={setTrack}
          quantity={Number(quantity) || 0}
          errorAt={(name) => at(name)}
        />
      )}
      <Refusal
        error={add.error}
        shownAt={['itemId', 'quantity', 'binId', 'because', 'lot', 'serials']}
        over={{ action: 'Take below zero', busy: add.isPending, post: (reason) => submit({ reason }) }}
      />
    </Part>
  );
}

const binOption = (format: Format, bin: { binId: number; bin: string; quantity: string }, item: Item | null) =>
  [
    String(bin.binId),
    `${bin.bin}: ${item ? format.quantity(bin.quantity, item.unit, item.decimals) : bin.quantity}`,
  ] as const;
