import { Item } from '@yosegi/contract';
import { isGtin } from '@yosegi/core/items';
import { isForGoods } from '@yosegi/core/places';
import { type ElementString, scanOf, writeGs1 } from '@yosegi/core/scan';
import { useState } from 'react';
import styled from 'styled-components';
import { z } from 'zod';
import { useQuestion } from '../api/client.ts';
import { LabelMark } from '../print/index.ts';
import { binLabel } from '../scan/scans.ts';
import { useScreens } from '../scan/screens.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { Ask, AskAnswer } from '../ui/layout.ts';
import { Part } from '../ui/space.ts';
import { Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { ScreenChoice } from './ScreenChoice.tsx';

const Beam = styled.section`padding: 22px 26px; overflow: auto; display: grid; gap: 16px; align-content: start;`;
const Label = styled.div`
  background: var(--field); padding: 16px; align-self: start; justify-self: start; display: flex; align-items: center; gap: 24px;
`;
const said = {
  field: 'Entered in the selected field.',
  screen: 'Received by the screen.',
  nowhere: 'That screen takes no scans right now. Select a field there.',
};

/**
 * Stands in for a barcode scanner: it sends what one would type to another open screen of this browser. A real one that
 * types like a keyboard needs nothing of this.
 */
export function ScannerPage() {
  const { screens, send, answer } = useScreens();
  const [chosen, setChosen] = useState('');
  const target = screens.find(({ id }) => id === chosen) ?? screens[0];
  const screen = useTypedScreen('scanner');
  const [text, setText] = useTyped(screen, 'text', '');
  const [label, setLabel] = useTyped(screen, 'label', '');
  const put = (scan: string, printed: string) => {
    setText(scan);
    setLabel(printed);
  };
  return (
    <AskAnswer>
      <Ask>
        <ScreenChoice
          title="Scan into"
          hint="Open the screen that should take the scan in another tab or window."
          screens={screens}
          target={target}
          onChoose={setChosen}
        />
      </Ask>
      <Beam>
        <div>
          <h1>{text === '' ? 'What do you hold in front of the scanner?' : 'Ready to scan.'}</h1>
          <Lead>Compose a label, choose a bin, or enter what is printed.</Lead>
        </div>
        <Compose onPut={put} />
        <Part $max={420}>
          <Field
            label="Scanned text"
            value={text.replaceAll('\u001d', '␝')}
            onChange={(next) => put(next.replaceAll('␝', '\u001d'), '')}
          />
        </Part>
        {label && (
          <Label>
            <LabelMark symbol={label.startsWith('(') ? 'gs1-128' : 'code128'} text={label} width={260} />
            {label.startsWith('(') && <LabelMark symbol="gs1datamatrix" text={label} width={84} />}
          </Label>
        )}
        <Row>
          <Button look="go" isDisabled={text === '' || !target} onPress={() => target && send(target.id, text)}>
            Scan{target ? ` into ${target.title}` : ''}
          </Button>
          <span role="status">{answer && said[answer]}</span>
        </Row>
      </Beam>
    </AskAnswer>
  );
}

const Held = z.object({ item: Item.nullable(), lot: z.string(), expires: z.string(), serial: z.string() });
type Held = z.infer<typeof Held>;
const NOTHING_HELD: Held = { item: null, lot: '', expires: '', serial: '' };

/** A label of an item with its lot and serial, or of a bin. */
function Compose({ onPut }: { onPut: (scan: string, printed: string) => void }) {
  const stores = useQuestion('stores', {}).data ?? [];
  const screen = useTypedScreen('scanner.held');
  const [held, setHeld] = useTyped(screen, 'held', NOTHING_HELD, Held);
  const { item, lot, expires, serial } = held;
  const hold = (part: Partial<Held>) => {
    const own = { ...held, ...part };
    setHeld(own);
    if (!own.item) return;
    const gtin = own.item.barcode && isGtin(own.item.barcode) ? own.item.barcode : undefined;
    const piece: ElementString = {
      ...(gtin ? { gtin } : {}),
      ...(own.lot ? { lot: own.lot } : {}),
      ...(own.expires ? { expires: own.expires } : {}),
      ...(own.serial ? { serial: own.serial } : {}),
    };
    try {
      if (gtin) onPut(`]C1${scanOf(piece)}`, writeGs1(piece));
      else onPut(own.item.barcode ?? own.item.code, own.item.barcode ?? own.item.code);
    } catch {
      onPut(own.item.code, own.item.code);
    }
  };
  return (
    <Row $wrap $end>
      <Part $width={240}>
        <ItemPicker label="An item" chosen={item?.name ?? ''} onPick={(next) => hold({ item: next })} />
      </Part>
      {item?.tracking === 'lot' && (
        <>
          <Part $width={130}>
            <Field label="Lot (10)" value={lot} onChange={(next) => hold({ lot: next })} />
          </Part>
          <Part $width={160}>
            <DayField label="Best before (17)" value={expires} onChange={(next) => hold({ expires: next })} />
          </Part>
        </>
      )}
      {item?.tracking === 'serial' && (
        <Part $width={150}>
          <Field label="Serial (21)" value={serial} onChange={(next) => hold({ serial: next })} />
        </Part>
      )}
      <Part $width={200}>
        <Choice
          label="or a bin"
          value=""
          onChange={(next) => next && onPut(next, next)}
          options={[
            ['', 'Choose a bin…'],
            ...stores.flatMap((store) =>
              store.bins
                .filter((bin) => isForGoods(bin.kind))
                .map((bin): [string, string] => [binLabel(store, bin), `${bin.code} · ${store.name}`]),
            ),
          ]}
        />
      </Part>
    </Row>
  );
}
