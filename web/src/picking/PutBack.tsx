import type { RunDetail } from '@yosegi/contract';
import { readExact, SCALE } from '@yosegi/core/number';
import { useState } from 'react';
import { problemOf, useCommand } from '../api/client.ts';
import { OutFields } from '../lines/OutFields.tsx';
import { NOTHING_TYPED, serialsTyped } from '../lines/typed.ts';
import { scanOfItem } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Row } from '../ui/text.ts';
import { answerBySound } from './feedback.ts';
import { Card, Says, Slot } from './phoneLook.ts';
import { slotsOf } from './view.ts';

type Brought = RunDetail['brought'][number];
const keyOf = ({ kind, lineId }: Brought) => `${kind}:${lineId}`;

/** Puts some of what was brought back to the bin it came from: the goods are scanned or tapped. */
export function PutBack({ run, onDone }: { run: RunDetail; onDone: () => void }) {
  const format = useFormat();
  const notify = useNotify();
  const slots = slotsOf(run);
  const [chosen, setChosen] = useState<string | null>(null);
  const [text, setText] = useState('');
  const [serials, setSerials] = useState('');
  const [lot, setLot] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const back = () => {
    notify({ text: 'Back in its bin.' });
    onDone();
  };
  const fromBench = useCommand('takeBack', back);
  const fromParcel = useCommand('unpackOrder', back);
  const own = run.brought.find((one) => keyOf(one) === chosen);
  const choose = (one: Brought, serial = '') => {
    setChosen(keyOf(one));
    setText(one.item.tracking === 'serial' ? (serial === '' ? '0' : '1') : one.quantity);
    setSerials(serial);
    setLot(one.pieces[0]?.lot ?? '');
    setWrong(null);
  };
  useScans((scanned) => {
    const typed = scanned.trim().toLowerCase();
    const bySerial = run.brought.find(({ pieces }) => pieces.some(({ serial }) => serial?.toLowerCase() === typed));
    const byItem = run.brought.find(({ item }) => scanOfItem(item, scanned) !== null);
    const found = bySerial ?? byItem;
    answerBySound(found !== undefined);
    if (!found) return setWrong('None of that was picked for anyone on this run.');
    choose(found, bySerial ? scanned.trim() : (scanOfItem(found.item, scanned)?.serial ?? ''));
  });
  const post = () => {
    if (!own) return;
    const codes = own.item.tracking === 'serial' ? serialsTyped(serials) : [];
    const line = { quantity: text, serials: codes };
    if (own.kind === 'build') fromBench.mutate({ params: { id: own.id }, body: { lineId: own.lineId, ...line } });
    else
      fromParcel.mutate({
        params: { id: own.id },
        body: { lines: [{ partId: own.lineId, lot: own.item.tracking === 'lot' ? lot : null, ...line }] },
      });
  };
  const problem = problemOf(fromBench.error ?? fromParcel.error);
  return (
    <Card aria-label="Put back">
      <h2>What goes back?</h2>
      <Says $left role={wrong ? 'alert' : undefined}>
        {wrong ?? 'Scan or tap the item. You put it back in the bin it came from.'}
      </Says>
      {run.brought
        .filter((one) => !own || one === own)
        .map((one) => (
          <Row key={keyOf(one)} $gap={10} $top={8}>
            <Slot aria-hidden>{slots.get(`${one.kind}:${one.id}`)?.slot}</Slot>
            <Tile code={one.item.code} size={36} />
            <Part $grow>
              <b>{one.item.name}</b>
              <br />
              {format.quantity(one.quantity, one.item.unit, one.item.decimals)} with{' '}
              {slots.get(`${one.kind}:${one.id}`)?.number}
            </Part>
            {!own && (
              <Button aria-label={`Choose ${one.item.name}`} onPress={() => choose(one)}>
                Choose
              </Button>
            )}
          </Row>
        ))}
      {own && (
        <>
          {own.item.tracking === 'serial' ? (
            <OutFields
              item={own.item}
              pieces={own.pieces}
              typed={{ ...NOTHING_TYPED, serials }}
              onChange={(next) => {
                setSerials(next.serials);
                setText(String(serialsTyped(next.serials).length));
              }}
              quantity={readExactOr(text) / SCALE}
              errorAt={() => undefined}
            />
          ) : (
            <Field label="Quantity to put back" numeric value={text} onChange={setText} suffix={own.item.unit} />
          )}
          {problem && <Says role="alert">{problem.detail}</Says>}
        </>
      )}
      <Part $grow />
      <Button look="ghost" onPress={own ? () => setChosen(null) : onDone}>
        {own ? 'Choose something else' : 'Continue picking'}
      </Button>
      {own && (
        <Button look="go" busy={fromBench.isPending || fromParcel.isPending} onPress={post}>
          Put {text || '0'} back
        </Button>
      )}
    </Card>
  );
}

function readExactOr(text: string): number {
  try {
    return readExact(text);
  } catch {
    return 0;
  }
}
