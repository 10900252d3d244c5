import type { PartItem, Store } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { formatDecimal, type Quantity, readExact, SCALE } from '@yosegi/core/number';
import { checkPick } from '@yosegi/core/picking';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf } from '../api/client.ts';
import { OutFields } from '../lines/OutFields.tsx';
import { countOf, namedOf, withScan } from '../lines/typed.ts';
import { scannedBin, scanOfItem } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { NumberInput } from '../ui/NumberInput.tsx';
import { Part } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { type PickJob, usePick } from './job.ts';
import { type Step, stepsOf, suggestedTrack, suggestion } from './steps.ts';

const Page = styled.div`min-height: 100%; background: var(--ebony); color: var(--on-dark); display: flex; flex-direction: column;`;
const Top = styled.header`
  padding: 14px 16px 10px; display: flex; justify-content: space-between; align-items: center; gap: 10px;
  h1 { font-size: 20px; } small { color: var(--on-band-faint); font-size: 13px; } a { color: var(--on-dark-go); padding: 12px 4px; white-space: nowrap; }
`;
const Progress = styled.div`display: flex; height: 12px; gap: 3px; padding: 0 16px;`;
const Piece = styled.i<{ $is: 'done' | 'now' | 'open' }>`
  flex: 1; transform: skewX(-20deg); background: ${({ $is }) => ({ done: 'var(--honey)', now: 'var(--phone-now)', open: 'var(--phone-open)' })[$is]};
`;
const Card = styled.section`
  margin: 14px 12px 0; background: var(--sheet); color: var(--ink); border-radius: 4px; padding: 16px; flex: 1; display: flex; flex-direction: column; > button, > a { min-height: 60px; }
`;
const Where = styled.div`display: flex; align-items: baseline; gap: 10px; b { font: 700 54px/1 var(--display); } span { color: var(--ink-2); }`;
const What = styled.div`display: flex; gap: 12px; align-items: center; margin: 14px 0 4px; b { font-size: 18px; line-height: 1.15; } small { color: var(--ink-2); }`;
const BinChoice = styled.button<{ $on: boolean }>`
  display: flex; justify-content: space-between; align-items: center; padding: 0 12px; min-height: 60px; border-radius: 3px; margin-top: 8px; text-align: left; cursor: pointer;
  border: ${({ $on }) => ($on ? '2px solid var(--moss)' : '1px solid var(--line)')}; background: ${({ $on }) => ($on ? 'var(--done-wash)' : 'transparent')};
`;
const Pad = styled.div`
  display: grid; grid-template-columns: 64px 1fr 64px; gap: 8px; margin-top: 14px;
  button, input { height: 60px; border: 1px solid var(--line); border-radius: 3px; font-size: 26px; background: var(--field); text-align: center; width: 100%; padding: 0; }
  input { font-weight: 600; } input[aria-invalid='true'] { border-color: var(--short); }
`;
const Big = styled(
  Button,
)`margin-top: 10px; min-height: 62px; background: var(--moss); border-color: var(--moss); color: var(--bright); font: 600 19px var(--text); width: 100%;`;
const Says = styled.p<{ $left?: boolean }>`
  text-align: ${({ $left }) => ($left ? 'left' : 'center')}; margin-top: 8px; color: var(--ink-2); &[role='alert'] { color: var(--short-ink); font-weight: 600; }
`;
const Next = styled.div`padding: 12px 16px 16px; display: flex; gap: 12px; align-items: center; color: var(--on-band-faint); font-size: 13.5px; min-height: 66px; b { color: var(--on-dark); }`;

/** One thing at a time: where, what, how many, done. */
export function PickPhone({ job, stores }: { job: PickJob; stores: readonly Store[] }) {
  const [skipped, setSkipped] = useState<readonly number[]>([]);
  const steps = stepsOf(job.lines, stores);
  // Skipped lines come round again at the end.
  const ordered = [
    ...steps.filter((step) => !skipped.includes(step.line.id)),
    ...steps.filter((step) => skipped.includes(step.line.id)),
  ];
  const [now, next] = ordered;
  const format = useFormat();
  return (
    <Page>
      <Top>
        <div>
          <h1>
            {job.kind === 'build' ? 'Build' : 'Order'} {job.number}
          </h1>
          <small>
            {job.what} · {job.picked} of {job.of} lines
          </small>
        </div>
        <Link to="/pick">All</Link>
      </Top>
      <Progress role="img" aria-label={`${job.picked} of ${job.of} lines picked`}>
        {Array.from({ length: job.of }, (_, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no identity
          <Piece key={index} $is={index < job.picked ? 'done' : index === job.picked ? 'now' : 'open'} />
        ))}
      </Progress>
      {now ? (
        <Stop
          key={`${now.line.id}:${now.line.open}`}
          job={job}
          step={now}
          stores={stores}
          onSkip={
            ordered.length > 1 ? () => setSkipped([...skipped.filter((id) => id !== now.line.id), now.line.id]) : null
          }
        />
      ) : (
        <Card>
          <h2>Everything is picked.</h2>
          <Says as="p" $left>
            All of {job.number} stands {job.place}.
          </Says>
          <Part $grow />
          <LinkButton look="go" to={job.next.to}>
            {job.next.says}
          </LinkButton>
        </Card>
      )}
      <Next>
        {next && (
          <>
            <Tile code={next.item.code} size={32} />
            <span>
              Next: <b>{next.item.name}</b>
              <br />
              {next.bins[0] ? `${next.bins[0].store}, ${next.bins[0].bin}` : 'in no bin'} ·{' '}
              {format.quantity(next.line.open, next.item.unit, next.item.decimals)}
            </span>
          </>
        )}
      </Next>
    </Page>
  );
}

interface StopProps {
  readonly job: PickJob;
  readonly step: Step;
  readonly stores: readonly Store[];
  readonly onSkip: (() => void) | null;
}

function Stop({ job, step, stores, onSkip }: StopProps) {
  const format = useFormat();
  const notify = useNotify();
  const { item, line, bins } = step;
  const [binId, setBinId] = useState(bins[0]?.binId ?? 0);
  const [text, setText] = useState(step.suggested);
  const [track, setTrack] = useState(() => suggestedTrack(item, bins[0], step.suggested));
  const pick = usePick(job, ({ id: documentId, number }) => notify({ text: `${number}: ${job.place}.`, documentId }));
  const bin = bins.find((known) => known.binId === binId);
  const read = readPick(text, item, line.open);
  const open = readExact(line.open);
  const amount = (scaled: number) => format.quantity(formatDecimal(scaled), item.unit, item.decimals);
  const refused = problemOf(pick.error);
  const wrong = read.error ?? (/\.(lot|serials)$/.test(refused?.field ?? '') ? undefined : refused?.detail);
  const post = () => {
    if (read.error || !bin || pick.isPending) return;
    pick.post([{ lineId: line.id, binId, quantity: formatDecimal(read.quantity), ...namedOf(item, track) }]);
  };
  const choose = (choice: (typeof bins)[number]) => {
    setBinId(choice.binId);
    const suggested = suggestion(line.open, choice);
    setText(suggested);
    setTrack(suggestedTrack(item, choice, suggested));
  };
  const [scanned, setScanned] = useState<{ text: string; isRight: boolean } | null>(null);
  const [serialsScanned, setSerialsScanned] = useState(false);
  useScans((text) => {
    const place = scannedBin(stores, text);
    const choice = place && bins.find((known) => known.binId === place.id);
    if (choice) {
      choose(choice);
      setScanned({ text: `Here it is: ${choice.bin}.`, isRight: true });
      return;
    }
    if (place) return setScanned({ text: `${place.code} holds none of it.`, isRight: false });
    const scan = scanOfItem(item, text);
    if (scan === null) return setScanned({ text: `That is not ${item.name}.`, isRight: false });
    // The first serial scanned takes the place of those that were proposed.
    const base = scan.serial && !serialsScanned ? { ...track, serials: '' } : track;
    const named = withScan(base, scan);
    setTrack(named);
    if (scan.serial) {
      setSerialsScanned(true);
      setText(String(countOf(item, named)));
    }
    setScanned({
      text: `That is the right one${scan.lot ? `, lot ${scan.lot}` : scan.serial ? `, ${scan.serial}` : ''}.`,
      isRight: true,
    });
  });
  const by = (steps: number) => setText(formatDecimal(Math.max(0, Math.min(open, read.quantity + steps * SCALE))));
  return (
    <Card aria-label={`Pick ${item.name}`}>
      <span>{bin?.store ?? 'Nowhere'}</span>
      <Where>
        <b>{bin?.bin ?? '–'}</b>
        <span>{bin ? 'go here' : 'no bin holds it; receive some first'}</span>
      </Where>
      <What>
        <Tile code={item.code} size={56} />
        <span>
          <b>{item.name}</b>
          <br />
          <small>{item.code}</small>
        </span>
      </What>
      {!scanned && <Says $left>Scan the bin and the part, or tap.</Says>}
      {scanned && (
        <Says role={scanned.isRight ? 'status' : 'alert'} $left>
          {scanned.isRight ? '✓ ' : ''}
          {scanned.text}
        </Says>
      )}
      {bins.map((choice) => (
        <BinChoice
          key={choice.binId}
          type="button"
          $on={choice.binId === binId}
          aria-pressed={choice.binId === binId}
          onClick={() => choose(choice)}
        >
          <span>
            <b>{choice.bin}</b> · {choice.store}
          </span>
          <b>{format.quantity(choice.quantity, item.unit, item.decimals)}</b>
        </BinChoice>
      ))}
      {bin && item.tracking !== 'none' && (
        <OutFields
          item={item}
          pieces={bin.pieces}
          typed={track}
          onChange={setTrack}
          quantity={read.quantity / SCALE}
          setCount={(n) => setText(String(n))}
          errorAt={(name) => problemAt(pick.error, `lines.0.${name}`)}
        />
      )}
      <Pad>
        <button type="button" aria-label="One less" onClick={() => by(-1)}>
          −
        </button>
        <NumberInput
          aria-label={`How many ${item.name}`}
          value={text}
          aria-invalid={wrong !== undefined}
          onChange={setText}
          onKeyDown={(event) => event.key === 'Enter' && post()}
        />
        <button type="button" aria-label="One more" onClick={() => by(1)}>
          +
        </button>
      </Pad>
      {wrong ? (
        <Says role="alert">{wrong}</Says>
      ) : (
        <Says>
          of {amount(open)} ·{' '}
          {read.quantity < open ? `${amount(open - read.quantity)} will stay open` : 'nothing stays open'}
        </Says>
      )}
      <Part $grow />
      {onSkip && (
        <Button look="ghost" onPress={onSkip}>
          Later
        </Button>
      )}
      <Big isDisabled={!bin || read.error !== undefined || read.quantity === 0} busy={pick.isPending} onPress={post}>
        Picked from {bin?.bin ?? '–'}
      </Big>
    </Card>
  );
}

function readPick(text: string, item: PartItem, open: string): { quantity: Quantity; error?: string } {
  try {
    const quantity = readTyped(text, item);
    if (quantity !== 0) checkPick(readExact(open) as Quantity, quantity);
    return { quantity };
  } catch (error) {
    return { quantity: 0 as Quantity, error: wordsOf(error) ?? 'This cannot be read.' };
  }
}
