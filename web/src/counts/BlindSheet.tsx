import type { CountDetail, CountLine } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { fromZero } from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { type KeyboardEvent, useRef, useState } from 'react';
import { problemOf, useCommand } from '../api/client.ts';
import { LineTable } from '../lines/LineTable.tsx';
import { STEPS, stepLines } from '../lines/steps.ts';
import { NOTHING_TYPED, readTrack } from '../lines/typed.ts';
import { LineItem } from '../lines/typedLines.tsx';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { scannedLabel } from '../ui/scanned.ts';
import { Faint } from '../ui/text.ts';
import { useAtOnce } from '../ui/useAtOnce.ts';
import { FoundExtra } from './FoundExtra.tsx';

const down = (event: KeyboardEvent<HTMLElement>) => stepLines(event, true, STEPS);

/** What is where, without what the books say. */
export function BlindSheet({ detail }: { detail: CountDetail }) {
  const body = useRef<HTMLTableSectionElement>(null);
  return (
    <div>
      <LineTable
        lines={detail.sheet.map((line) => ({ ...line, key: line.id, item: line }))}
        body={body}
        columns={[
          {
            head: 'Item',
            cell: (line) => (
              <LineItem
                item={line}
                more={line.tracking === 'serial' ? 'scan each one you see' : line.lot && `lot ${line.lot}`}
              />
            ),
          },
          {
            head: 'Bin',
            width: 150,
            onPhone: 'Bin',
            cell: (line) => (
              <>
                <b>{line.bin}</b> <Faint>{line.store}</Faint>
              </>
            ),
          },
          {
            head: 'Quantity',
            width: 190,
            onPhone: 'Quantity',
            cell: (line) =>
              // What somebody else counted shows, as long as nothing else is typed.
              line.tracking === 'serial' ? <SeenSerials line={line} /> : <CountedQuantity line={line} />,
          },
          { head: 'Counted', width: 170, onPhone: 'Counted', cell: (line) => <WhatIsKept line={line} /> },
        ]}
      />
      <FoundExtra detail={detail} />
    </div>
  );
}

function CountedQuantity({ line }: { line: CountLine }) {
  const { text, typed, type, saved } = useAtOnce(`counted.${line.id}`, line.counted ?? '');
  const [fault, setFault] = useState<string | undefined>();
  const say = useCommand('countLine');
  const keep = () => {
    if (typed === null || text.trim() === '') return;
    if (line.counted !== null && plainTyped(text, line) === line.counted) return saved(text);
    try {
      fromZero(readTyped(text, line));
      setFault(undefined);
      say.mutate(
        { params: { id: line.id }, body: { counted: plainTyped(text, line) } },
        { onSuccess: () => saved(text) },
      );
    } catch (error) {
      setFault(entryFault(error));
    }
  };
  return (
    <Field
      label={`Counted ${line.name}${line.lot ? ` lot ${line.lot}` : ''} in ${line.bin}`}
      hideLabel
      numeric
      suffix={line.unit === 'each' ? '' : line.unit}
      value={text}
      onChange={type}
      onBlur={keep}
      error={fault ?? problemOf(say.error)?.detail}
      onKeyDown={(event) => {
        down(event);
        // The last line has nowhere to go on to, and is kept all the same.
        if (event.key === 'Enter') keep();
      }}
    />
  );
}

/** Serials one sees, scanned or typed one after the other; which ones the books have is not told. */
function SeenSerials({ line }: { line: CountLine }) {
  const { text, typed, type: setText, saved } = useAtOnce(`seen.${line.id}`, writeSerials(line.seen));
  const say = useCommand('countLine');
  const read = readTrack({ id: line.itemId, name: line.name, tracking: 'serial' }, { ...NOTHING_TYPED, serials: text });
  const keep = () => {
    if (typed === null || read.error || read.serials.length === 0) return;
    if (line.counted !== null && read.serials.join() === line.seen.join()) return;
    say.mutate({
      params: { id: line.id },
      body: { counted: String(read.serials.length), serials: read.serials },
    });
  };
  return (
    <Field
      label={`Serial numbers of ${line.name} in ${line.bin}`}
      hideLabel
      step
      placeholder="Scan or enter"
      value={text}
      suffix={String(read.serials.length)}
      onChange={(next) => {
        try {
          const words = next.split(/\s+/);
          const scan = scannedLabel(words.at(-1) ?? '');
          setText(scan?.serial ? [...words.slice(0, -1), scan.serial].join(' ') : next);
        } catch {
          setText(next);
        }
      }}
      onBlur={() => {
        keep();
        // Not before: the next one scanned goes on where the last ended.
        if (line.counted !== null && read.serials.join() === line.seen.join()) saved(typed);
      }}
      error={read.error ?? problemOf(say.error)?.detail}
      onKeyDown={(event) => {
        // A scanner ends each code with Enter; a person goes on with a second one.
        if (event.key === 'Enter' && text !== '' && !/\s$/.test(text)) {
          event.preventDefault();
          setText(`${text} `);
        } else down(event);
        if (event.key === 'Enter') keep();
      }}
    />
  );
}

/** What was said of a line so far, and by whom. */
function WhatIsKept({ line }: { line: CountLine }) {
  const format = useFormat();
  const say = useCommand('countLine');
  if (line.counted !== null)
    return (
      <Faint>
        {line.tracking === 'serial'
          ? count(line.seen.length, 'serial')
          : format.quantity(line.counted, line.unit, line.decimals)}{' '}
        by {line.countedBy}
      </Faint>
    );
  if (line.tracking !== 'serial') return <Faint>not yet</Faint>;
  return (
    <Button
      look="ghost"
      busy={say.isPending}
      onPress={() => say.mutate({ params: { id: line.id }, body: { counted: '0', serials: [] } })}
    >
      Count as zero
    </Button>
  );
}
