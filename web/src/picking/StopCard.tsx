import type { RunStop, Store } from '@yosegi/contract';
import { entryFault } from '@yosegi/contract/problems';
import { formatDecimal, readExact, SCALE } from '@yosegi/core/number';
import { useMemo, useState } from 'react';
import { ask } from '../api/client.ts';
import { lotWords, OutFields } from '../lines/OutFields.tsx';
import { NOTHING_TYPED, namedOf, serialsTyped, withScan } from '../lines/typed.ts';
import { labelOf, scanOfItem } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { useFormat } from '../ui/format.ts';
import { readTyped } from '../ui/measuring.ts';
import { NumberInput } from '../ui/NumberInput.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Row } from '../ui/text.ts';
import { answerBySound } from './feedback.ts';
import { Big, Card, Pad, Says, Slot, What, Where } from './phoneLook.ts';
import type { QueuedLine } from './queue.ts';
import { readRunScan } from './runScan.ts';
import { serialsFor, type slotsOf } from './view.ts';

interface Props {
  readonly stop: RunStop;
  readonly stops: readonly RunStop[];
  readonly stores: readonly Store[];
  readonly slots: ReturnType<typeof slotsOf>;
  /** Each that goods were put to is scanned before it counts. */
  readonly confirms: boolean;
  readonly onPick: (lines: QueuedLine[], says: string) => void;
  readonly onNotThere: () => void;
  readonly onLater: (() => void) | null;
  /** Goes to another stop, because something of it was scanned. */
  readonly onGo: (key: string) => void;
}

/** One stop: where, what, which lot, how many, for whom, done. */
export function StopCard({ stop, stops, stores, slots, confirms, onPick, onNotThere, onLater, onGo }: Props) {
  const format = useFormat();
  const { item } = stop;
  const [texts, setTexts] = useState<readonly string[]>(() => stop.lines.map(({ quantity }) => quantity));
  const [track, setTrack] = useState({ ...NOTHING_TYPED, lot: stop.lot ?? '' });
  const [heard, setHeard] = useState<{ text: string; isRight: boolean } | null>(null);
  const [confirmed, setConfirmed] = useState<ReadonlySet<string>>(new Set());
  const read = useMemo(() => readAmounts(texts, stop, slots), [texts, stop, slots]);
  const total = read.quantities.reduce((sum, one) => sum + one, 0);
  const serials = track.serials === '' ? [] : serialsTyped(track.serials);
  const isSerial = item.tracking === 'serial';
  const lacksSerials = isSerial && serials.length * SCALE !== total;
  const say = (text: string, isRight: boolean) => {
    answerBySound(isRight);
    setHeard({ text, isRight });
  };
  const goals = stop.lines.flatMap((line, index) => {
    const goal = slots.get(`${line.kind}:${line.id}`);
    return goal && (read.quantities[index] ?? 0) > 0 ? [goal] : [];
  });
  const toConfirm = confirms ? goals.filter((goal) => !confirmed.has(goal.slot)) : [];
  const setAll = (amounts: readonly number[]) => setTexts(amounts.map((one) => formatDecimal(one)));
  const takeSerials = (text: string) => {
    setTrack({ ...track, serials: text });
    const count = serialsTyped(text).length;
    let left = count * SCALE;
    setAll(
      stop.lines.map(({ quantity }) => {
        const own = Math.min(left, readExact(quantity));
        left -= own;
        return own;
      }),
    );
  };
  const post = () => {
    if (total === 0 || read.error || lacksSerials) return;
    const named = namedOf(item, track);
    const own = serialsFor(
      read.quantities.map((one) => one / SCALE),
      serials,
    );
    const lines = stop.lines.flatMap(({ kind, id, lineId }, index) => {
      const quantity = read.quantities[index] ?? 0;
      if (quantity === 0) return [];
      const { lot } = named;
      return { kind, id, lineId, binId: stop.binId, quantity: formatDecimal(quantity), lot, serials: own[index] ?? [] };
    });
    onPick(lines, `${format.quantity(formatDecimal(total), item.unit, item.decimals)} ${item.name} from ${stop.bin}`);
  };
  useScans((text) => {
    const scan = readRunScan(text, { now: stop, stops, goals: [...slots.values()], stores });
    if (scan.is === 'bin') return say(`Here it is: ${stop.bin}.`, true);
    if (scan.is === 'goal') {
      if (!goals.includes(scan.goal)) return say(`None of this goes to ${scan.goal.slot}, ${scan.goal.number}.`, false);
      const there = new Set(confirmed).add(scan.goal.slot);
      setConfirmed(there);
      say(`Into ${scan.goal.slot}, ${scan.goal.number}.`, true);
      // Whoever has scanned where all of it goes has done it, without a finger.
      if (goals.every(({ slot }) => there.has(slot))) post();
      return;
    }
    if (scan.is === 'goods') {
      const { lot, serial } = scan.scan;
      if (serial !== undefined && !stop.pieces.some((piece) => piece.serial?.toLowerCase() === serial.toLowerCase()))
        return say(`${serial} is not booked in ${stop.bin}.`, false);
      if (lot !== undefined && isWrongLot(stop, lot))
        return say(`That is lot ${lot}. Pick lot ${stop.lot}, which expires first.`, false);
      const next = withScan(track, scan.scan);
      if (serial === undefined) setTrack(next);
      else takeSerials(next.serials);
      return say(`That is the right one${lot ? `, lot ${lot}` : serial ? `, ${serial}` : ''}.`, true);
    }
    if (scan.is === 'stop') {
      answerBySound(true);
      return onGo(scan.key);
    }
    const wanted = `${item.name} from ${stop.bin}`;
    if (scan.is === 'wrong') return say(`That is ${scan.was}. You need ${wanted}.`, false);
    say(`Nobody on this run needs that. You need ${wanted}.`, false);
    void nameOf(text).then(
      (name) => name && setHeard({ text: `That is ${name}. You need ${wanted}.`, isRight: false }),
    );
  });
  const amount = (text: string) => format.quantity(text, item.unit, item.decimals);
  return (
    <Card aria-label={`Pick ${item.name}`}>
      <span>{stop.store}</span>
      <Where>
        <b>{stop.bin}</b>
        <span>{amount(stop.there)} there</span>
      </Where>
      <What>
        <Tile code={item.code} size={56} />
        <span>
          <b>{item.name}</b>
          <br />
          <small>{item.code}</small>
        </span>
      </What>
      {stop.lot !== null && <Lots stop={stop} lot={track.lot} onChange={(lot) => setTrack({ ...track, lot })} />}
      {heard ? (
        <Says role={heard.isRight ? 'status' : 'alert'} $left>
          {heard.isRight ? '✓ ' : ''}
          {heard.text}
        </Says>
      ) : (
        <Says $left>Scan the bin and the goods, or tap.</Says>
      )}
      {isSerial && (
        <OutFields
          item={item}
          pieces={stop.pieces}
          typed={track}
          onChange={(next) => takeSerials(next.serials)}
          quantity={total / SCALE}
          errorAt={() => undefined}
        />
      )}
      {stop.lines.map((line, index) => {
        const goal = slots.get(`${line.kind}:${line.id}`);
        const by = (steps: number) => {
          const now = read.quantities[index] ?? 0;
          const most = goal?.spare ? readExact(stop.there) : readExact(line.quantity);
          setTexts(texts.with(index, formatDecimal(Math.max(0, Math.min(most, now + steps * SCALE)))));
        };
        return (
          <Part key={`${line.kind}:${line.lineId}`} $top={10}>
            <Row $gap={8} $bottom={6}>
              <Slot aria-hidden>{goal?.slot}</Slot>
              <span>
                <b>{amount(line.quantity)}</b> to {goal?.number} · {goal?.name}
                {confirms && confirmed.has(goal?.slot ?? '') && ' ✓'}
              </span>
            </Row>
            {!isSerial && (
              <Pad>
                <button type="button" aria-label={`One less to ${goal?.number}`} onClick={() => by(-1)}>
                  −
                </button>
                <NumberInput
                  aria-label={`How many to ${goal?.number}`}
                  value={texts[index] ?? ''}
                  aria-invalid={read.error !== undefined}
                  onChange={(text) => setTexts(texts.with(index, text))}
                  onKeyDown={(event) => event.key === 'Enter' && post()}
                />
                <button type="button" aria-label={`One more to ${goal?.number}`} onClick={() => by(1)}>
                  +
                </button>
              </Pad>
            )}
          </Part>
        );
      })}
      {read.error ? (
        <Says role="alert">{read.error}</Says>
      ) : (
        <Says>{restWords(readExact(stop.quantity) - total, lacksSerials, amount)}</Says>
      )}
      <Part $grow />
      <Row $gap={8} $top={10}>
        <Button look="ghost" onPress={onNotThere}>
          Not there
        </Button>
        {onLater && (
          <Button look="ghost" onPress={onLater}>
            Later
          </Button>
        )}
      </Row>
      {toConfirm.length > 0 && total > 0 && !lacksSerials ? (
        <>
          <Says>
            Scan {toConfirm.map(({ slot, number }) => `${slot} (${number})`).join(' and ')} to confirm where it goes.
          </Says>
          <Button onPress={() => setConfirmed(new Set(goals.map(({ slot }) => slot)))}>Confirm without scanning</Button>
        </>
      ) : (
        <Big isDisabled={total === 0 || read.error !== undefined || lacksSerials} onPress={post}>
          Picked {amount(formatDecimal(total))} from {stop.bin}
        </Big>
      )}
    </Card>
  );
}

/** The lot that is taken: where it is free to choose, any that stands there. */
function Lots({ stop, lot, onChange }: { stop: RunStop; lot: string; onChange: (lot: string) => void }) {
  const format = useFormat();
  const free = stop.pieces.filter((piece) => piece.held === null && piece.lot !== null);
  const { unit, decimals } = stop.item;
  if (stop.item.lotOrder === 'free' && free.length > 1)
    return (
      <Choice
        label="Lot"
        value={lot}
        onChange={onChange}
        options={free.map((piece): [string, string] => [piece.lot ?? '', lotWords(format, piece, unit, decimals)])}
      />
    );
  return (
    <p>
      Lot <b>{stop.lot}</b>
      {stop.bestBefore && ` · best before ${format.longerDay(stop.bestBefore)}`}
      {stop.lotSays && ` · ${stop.lotSays}`}
    </p>
  );
}

const isWrongLot = (stop: RunStop, lot: string) =>
  stop.item.lotOrder === 'prescribed' && stop.lot !== null && lot.toLowerCase() !== stop.lot.toLowerCase();

function restWords(left: number, lacksSerials: boolean, amount: (text: string) => string): string {
  if (lacksSerials) return 'Scan or tap each serial number.';
  if (left < 0) return `${amount(formatDecimal(-left))} more than needed: the build allows it.`;
  return left > 0 ? `${amount(formatDecimal(left))} will stay open` : 'Nothing stays open here';
}

function readAmounts(texts: readonly string[], stop: RunStop, slots: ReturnType<typeof slotsOf>) {
  try {
    const quantities = texts.map((text) => (text.trim() === '' ? 0 : readTyped(text, stop.item)));
    const over = stop.lines.findIndex(
      (line, index) =>
        (quantities[index] ?? 0) > readExact(line.quantity) && !slots.get(`${line.kind}:${line.id}`)?.spare,
    );
    if (over < 0) return { quantities, error: undefined };
    const line = stop.lines[over];
    const number = line && slots.get(`${line.kind}:${line.id}`)?.number;
    return { quantities, error: `${number} needs only ${line?.quantity} of it here.` };
  } catch (error) {
    return { quantities: texts.map(() => 0), error: entryFault(error) };
  }
}

/** What a scan that nobody on the run wants is, as far as the server knows and can be reached. */
async function nameOf(text: string): Promise<string | null> {
  try {
    const meant = (labelOf(text)?.gtin ?? text).trim();
    const of = async (show: 'all' | 'archived') =>
      (await ask('items', { query: { q: meant, show, limit: 20 } })).rows.find((item) => scanOfItem(item, text));
    const item = await of('all');
    if (item) return item.name;
    const archived = await of('archived');
    return archived ? `${archived.name}, which is archived: bring it back before it is used` : null;
  } catch {
    return null;
  }
}
