import type { CountDetail, CountLine, Item } from '@yosegi/contract';
import { wordsOf } from '@yosegi/contract/problems';
import { formatDecimal, fromZero, readForText, sumForText } from '@yosegi/core/number';
import { writeSerials } from '@yosegi/core/tracking';
import { type KeyboardEvent, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { problemAt, problemOf, useCommand, useQuestion } from '../api/client.ts';
import { InFields } from '../lines/InFields.tsx';
import { Shortages } from '../lines/Shortages.tsx';
import { NOTHING_TYPED, namedInOf, readTrack, withScan } from '../lines/typed.ts';
import { useCan } from '../shell/person.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerBody, AnswerPane, Cell, Foot } from '../ui/layout.ts';
import { plainTyped, readTyped } from '../ui/measuring.ts';
import { useNotify } from '../ui/Notice.tsx';
import { ProblemBox } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { scannedLabel } from '../ui/scanned.ts';
import { shelfOptions } from '../ui/shelves.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { CountDifferences } from './CountDifferences.tsx';

/** A line that stays readable on a phone: the bin, the item, and one large box. */
const Line = styled.div`
  display: grid; grid-template-columns: 110px minmax(0, 1fr) 170px 150px; gap: 12px; align-items: center; padding: 6px 0; border-bottom: 1px solid var(--line-soft);
  > b { font: 600 20px var(--display); }
  @media (max-width: 700px) { grid-template-columns: 1fr 1fr; > :nth-child(2) { grid-column: 1 / -1; grid-row: 1; } input { font-size: 18px; min-height: 48px; } }
`;

/** One count: the blind sheet while it is open, then what differed. */
export function CountSheet({ id }: { id: number }) {
  const data = useQuestion('count', { params: { id } });
  return <Answer of={data}>{(detail) => <Sheet detail={detail} />}</Answer>;
}

function Sheet({ detail }: { detail: CountDetail }) {
  const format = useFormat();
  const notify = useNotify();
  const mayApprove = useCan('approve-count');
  const [view, setView] = useAddress('view');
  const open = detail.state === 'open';
  const differences = view === 'differences' || !open;
  const approve = useCommand('approveCount', (done) =>
    notify({
      text: done.documentId === null ? `${done.number}: everything was right.` : `${done.number} is approved.`,
      ...(done.documentId === null ? {} : { documentId: done.documentId }),
    }),
  );
  const cancel = useCommand('cancelCount', () => notify({ text: `${detail.number} is given up; nothing was posted.` }));
  const off = detail.sheet.filter(
    (line) => (line.difference ?? '0') !== '0' || line.missing.length + line.found.length > 0,
  );
  const total = sumForText(off.map((line) => readForText(line.value ?? '0')));
  const command = { params: { id: detail.id }, body: { version: detail.version } };
  const problem = problemOf(approve.error);
  const left = detail.lines - detail.counted;
  return (
    <AnswerPane style={{ height: '100%' }}>
      <AnswerBody>
        <Row $wrap>
          <div>
            <h1>
              {!open
                ? `${detail.number} is ${detail.state}.`
                : differences
                  ? off.length === 0
                    ? 'Nothing differs so far.'
                    : `${count(off.length, 'line')} differ${off.length === 1 ? 's' : ''}, ${
                        off.some((line) => line.needsCost)
                          ? 'and what was found has no cost yet.'
                          : `${format.money(formatDecimal(total < 0n ? -total : total))} ${total < 0n ? 'less' : 'more'} than in the books.`
                      }`
                  : left === 0
                    ? 'Everything is counted.'
                    : `${count(left, 'line')} to count.`}
            </h1>
            <Lead>
              {detail.number} · {detail.scope}
              {detail.documentId !== null && (
                <>
                  {' · '}
                  <Link to={`/stock/documents/${detail.documentId}`}>its document</Link>
                </>
              )}
            </Lead>
          </div>
          <Push />
          {open && (
            <>
              <Button look={differences ? 'ghost' : 'plain'} aria-pressed={!differences} onPress={() => setView('')}>
                Sheet
              </Button>
              <Button
                look={differences ? 'plain' : 'ghost'}
                aria-pressed={differences}
                onPress={() => setView('differences')}
              >
                Differences
              </Button>
              <LinkButton look="ghost" to={`/print/count/${detail.id}`}>
                On paper
              </LinkButton>
            </>
          )}
        </Row>
        {differences ? (
          <CountDifferences detail={detail} open={open} refused={approve.error} />
        ) : (
          <Blind detail={detail} />
        )}
        {problem && (
          <ProblemBox error={approve.error}>
            <Shortages problem={problem} />
            {problem.code === 'stock-short' && (
              <Faint>What was missing then has been taken since. Count it again.</Faint>
            )}
          </ProblemBox>
        )}
        <ProblemBox error={cancel.error} />
      </AnswerBody>
      {open && (
        <Foot>
          <Button
            look="go"
            busy={approve.isPending}
            isDisabled={!mayApprove || detail.counted === 0}
            onPress={() =>
              approve.mutate(command, {
                // The worth is asked for where what was found is shown.
                onError: (error) => problemOf(error)?.code === 'cost-unknown' && setView('differences'),
              })
            }
          >
            Approve {count(detail.counted, 'line')}
          </Button>
          <Button look="ghost" busy={cancel.isPending} onPress={() => cancel.mutate(command)}>
            Give it up
          </Button>
          <Muted>
            {!mayApprove
              ? 'An owner approves it.'
              : left > 0
                ? `${count(left, 'line')} that nobody counted ${left === 1 ? 'stays' : 'stay'} as ${left === 1 ? 'it is' : 'they are'}.`
                : 'One document; it can be undone.'}
          </Muted>
        </Foot>
      )}
    </AnswerPane>
  );
}

/** What is where, without what the books say. */
function Blind({ detail }: { detail: CountDetail }) {
  const list = useRef<HTMLDivElement>(null);
  const next = (event: KeyboardEvent<HTMLInputElement>) => {
    const inputs = [...(list.current?.querySelectorAll<HTMLInputElement>('input.num') ?? [])];
    inputs[inputs.indexOf(event.currentTarget) + 1]?.focus();
  };
  return (
    <div ref={list}>
      {detail.sheet.map((line) => (
        <BlindLine key={`${line.id}.${line.counted}`} line={line} onNext={next} />
      ))}
      <FoundBesides detail={detail} />
    </div>
  );
}

function BlindLine({ line, onNext }: { line: CountLine; onNext: (event: KeyboardEvent<HTMLInputElement>) => void }) {
  const format = useFormat();
  const [text, setText] = useState(line.counted ?? '');
  const [fault, setFault] = useState<string | undefined>();
  const say = useCommand('countLine');
  if (line.tracking === 'serial') return <BlindSerials line={line} onNext={onNext} />;
  const keep = () => {
    if (text.trim() === '' || (line.counted !== null && plainTyped(text, line) === line.counted)) return;
    try {
      fromZero(readTyped(text, line));
      setFault(undefined);
      say.mutate({ params: { id: line.id }, body: { counted: plainTyped(text, line) } });
    } catch (error) {
      setFault(wordsOf(error) ?? 'This cannot be read.');
    }
  };
  return (
    <Line>
      <b>
        {line.bin} <Faint>{line.store}</Faint>
      </b>
      <Cell>
        <Tile code={line.code} size={32} />
        <span>
          <b>{line.name}</b>
          <br />
          <Faint>
            {line.code}
            {line.lot && ` · lot ${line.lot}`}
          </Faint>
        </span>
      </Cell>
      <Field
        label={`Counted ${line.name}${line.lot ? ` lot ${line.lot}` : ''} in ${line.bin}`}
        hideLabel
        numeric
        suffix={line.unit}
        value={text}
        onChange={setText}
        onBlur={keep}
        error={fault ?? problemOf(say.error)?.detail}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          onNext(event);
          keep();
        }}
      />
      <span>
        {line.counted === null ? (
          <Faint>{say.isPending ? 'keeping…' : 'not yet'}</Faint>
        ) : (
          <Faint>
            {format.quantity(line.counted, line.unit, line.decimals)} by {line.countedBy}
          </Faint>
        )}
      </span>
    </Line>
  );
}

/** Serials one sees, scanned or typed one after the other; which ones the books have is not told. */
function BlindSerials({ line, onNext }: { line: CountLine; onNext: (event: KeyboardEvent<HTMLInputElement>) => void }) {
  const [text, setText] = useState(writeSerials(line.seen));
  const say = useCommand('countLine');
  const read = readTrack({ id: line.itemId, name: line.name, tracking: 'serial' }, { ...NOTHING_TYPED, serials: text });
  const keep = (none = false) => {
    if (read.error || (!none && read.serials.length === 0)) return;
    if (line.counted !== null && read.serials.join() === line.seen.join()) return;
    say.mutate({
      params: { id: line.id },
      body: { counted: String(none ? 0 : read.serials.length), serials: none ? [] : read.serials },
    });
  };
  return (
    <Line>
      <b>
        {line.bin} <Faint>{line.store}</Faint>
      </b>
      <Cell>
        <Tile code={line.code} size={32} />
        <span>
          <b>{line.name}</b>
          <br />
          <Faint>{line.code} · scan each one that is there</Faint>
        </span>
      </Cell>
      <Field
        label={`Serials seen of ${line.name} in ${line.bin}`}
        hideLabel
        placeholder="Scan or type"
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
        onBlur={() => keep()}
        error={read.error ?? problemOf(say.error)?.detail}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          // A scanner ends each code with Enter; a person goes on with a second one.
          if (text !== '' && !/\s$/.test(text)) setText(`${text} `);
          else onNext(event);
          keep();
        }}
      />
      <span>
        {line.counted === null ? (
          <Button look="ghost" onPress={() => keep(true)}>
            None is there
          </Button>
        ) : (
          <Faint>
            {count(line.seen.length, 'serial')} by {line.countedBy}
          </Faint>
        )}
      </span>
    </Line>
  );
}

/** An item that stands where the books have none of it. */
function FoundBesides({ detail }: { detail: CountDetail }) {
  const shelves = shelfOptions(useQuestion('stores', {}).data ?? []);
  const [binId, setBin] = useState('');
  const [lotOf, setLotOf] = useState<Item | null>(null);
  const [track, setTrack] = useState(NOTHING_TYPED);
  const found = useCommand('addCountLine', () => {
    setLotOf(null);
    setTrack(NOTHING_TYPED);
  });
  const add = (item: Item) => {
    const { lot, bestBefore } = namedInOf(item, track);
    found.mutate({ params: { id: detail.id }, body: { itemId: item.id, binId: Number(bin), lot, bestBefore } });
  };
  // Whoever counts stands at a bin of this count.
  const bin = binId || String(detail.sheet[0]?.binId ?? '');
  return (
    <Row $wrap $gap={10} style={{ marginTop: 16, alignItems: 'end' }}>
      <div style={{ width: 300 }}>
        <ItemPicker
          label="Found besides"
          placeholder="An item that is not on the sheet"
          onPick={(item, scan) => {
            if (item.tracking !== 'lot') return add(item);
            setTrack(scan ? withScan(NOTHING_TYPED, scan) : NOTHING_TYPED);
            setLotOf(item);
          }}
        />
      </div>
      <div style={{ width: 210 }}>
        <Choice label="in" value={bin} onChange={setBin} options={shelves} />
      </div>
      {lotOf && (
        <Row $gap={8}>
          <InFields
            item={lotOf}
            typed={track}
            onChange={setTrack}
            quantity={1}
            errorAt={(name) => problemAt(found.error, name)}
          />
          <Button isDisabled={track.lot.trim() === ''} busy={found.isPending} onPress={() => add(lotOf)}>
            Add lot of {lotOf.name}
          </Button>
        </Row>
      )}
      <ProblemBox error={found.error} shownAt={['lot']} />
    </Row>
  );
}
