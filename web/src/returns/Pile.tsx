import type { ReturnDetail, ReturnLine, ReturnPiece } from '@yosegi/contract';
import { formatDecimal } from '@yosegi/core/number';
import type { SettledBy } from '@yosegi/core/returns';
import { Fragment, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { problemOf, useCommand, useQuestion } from '../api/client.ts';
import { Refusal } from '../lines/Refusal.tsx';
import { stepLines } from '../lines/steps.ts';
import { labelOf } from '../scan/scans.ts';
import { useScans } from '../scan/wedge.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Cell, Foot, Grid } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { shelfOptions } from '../ui/shelves.ts';
import { Part, Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Muted, Push, Row } from '../ui/text.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import {
  goingWith,
  isWaiting,
  kitsThatCanGo,
  NOTHING_DECIDED,
  reckonPile,
  TypedPiece,
  type TypedPile,
} from './pile.ts';
import { pieceName, settledWords, waitedWords } from './words.ts';

/** Stays in sight however long the pile is. */
const StickyFoot = styled(
  Foot,
)`position: sticky; bottom: -20px; margin: 0 -24px; z-index: 2; &:last-child { margin-bottom: -20px; }
  @media (max-width: 700px) { bottom: -14px; margin: 0 -14px; &:last-child { margin-bottom: -14px; } }`;
const Head = styled.tr`td { background: var(--birch); padding: 8px 10px; }`;
/** What a thing of its own may become, and what a part of a kit. */
const WHOLE: readonly SettledBy[] = ['shelf', 'scrap', 'sent-back'];
const PARTS: readonly [SettledBy, string][] = [
  ['shelf', 'Good'],
  ['damaged', 'Damaged'],
  ['missing', 'Missing'],
  ['not-ours', 'Not ours'],
];

interface Props {
  readonly returns: readonly ReturnDetail[];
  /** Under which name what is typed is kept. */
  readonly keptAs: string;
  readonly children: React.ReactNode;
}

/** A pile of what came back: for every thing what becomes of it, and all of it decided in one go. */
export function Pile({ returns, keptAs, children }: Props) {
  const format = useFormat();
  const notify = useNotify();
  const screen = useTypedScreen(keptAs);
  const [typed, setTyped] = useTyped<TypedPile>(screen, 'typed', new Map(), z.map(z.number(), TypedPiece));
  const reckoned = reckonPile(returns, typed);
  const settle = useCommand(
    'settleReturns',
    ({ documents: [first, ...others] }) => {
      const numbers = [first, ...others].flatMap((one) => one?.number ?? []).join(', ');
      notify({ text: `${numbers}: decided.`, ...(first && others.length === 0 ? { documentId: first.id } : {}) });
    },
    () => setTyped(new Map()),
  );
  const post = () => {
    if (reckoned.deeds.length === 0 || reckoned.faults.size > 0 || settle.isPending) return;
    settle.mutate({ body: { deeds: [...reckoned.deeds] } });
  };
  useShortcut('Enter', post, { ctrl: true });
  useScans((text) => scrollTo(returns, text));
  const set = (piece: ReturnPiece, part: Partial<TypedPiece>) =>
    setTyped(new Map(typed).set(piece.id, { ...(typed.get(piece.id) ?? NOTHING_DECIDED), ...part }));
  const decideAll = (line: ReturnLine, amountsOf: (piece: ReturnPiece) => TypedPiece['amounts']) => {
    const next = new Map(typed);
    for (const piece of line.pieces.filter(isWaiting))
      next.set(piece.id, { ...(typed.get(piece.id) ?? NOTHING_DECIDED), amounts: amountsOf(piece) });
    setTyped(next);
  };
  const asItShouldBe = (line: ReturnLine) => decideAll(line, (piece) => ({ shelf: piece.waiting }));
  const sendBack = (line: ReturnLine, kits: number) => {
    const going = goingWith(line, kits);
    decideAll(line, ({ id }): TypedPiece['amounts'] => {
      const amount = kits === 0 ? undefined : going.get(id);
      return amount === undefined ? {} : { 'sent-back': amount };
    });
  };
  const problem = problemOf(settle.error);
  const refused = reckoned.deeds[Number(problem?.field?.split('.')[1])]?.pieceId;
  const errorOf = (piece: ReturnPiece) =>
    reckoned.faults.get(piece.id) ?? (refused === piece.id ? problem?.detail : undefined);
  const money = (amount: number) => format.money(formatDecimal(amount));
  return (
    <>
      {children}
      {returns.length > 0 && (
        <Grid $full $top={10}>
          <thead>
            <tr>
              <th>Returns</th>
              <th className="num">To decide</th>
              <th className="num">Value</th>
              <Th $width={430}>Decision</Th>
              <Th $width={150}>Into bin</Th>
              <Th $width={170}>Note</Th>
            </tr>
          </thead>
          <tbody>
            {returns.map((one) =>
              one.lines
                .filter(({ pieces }) => pieces.some(isWaiting))
                .map((line) => (
                  <Fragment key={line.id}>
                    <LineHead
                      of={one}
                      line={line}
                      goesBack={goesBack(line, typed)}
                      onAll={() => asItShouldBe(line)}
                      onBack={(kits) => sendBack(line, kits)}
                    />
                    {line.pieces.filter(isWaiting).map((piece) => (
                      <PieceRow
                        key={piece.id}
                        piece={piece}
                        line={line}
                        typed={typed.get(piece.id) ?? NOTHING_DECIDED}
                        set={(part) => set(piece, part)}
                        error={errorOf(piece)}
                      />
                    ))}
                  </Fragment>
                )),
            )}
          </tbody>
        </Grid>
      )}
      <Refusal error={settle.error} shownAt={refused === undefined ? [] : [problem?.field ?? '']} />
      {returns.length > 0 && (
        <StickyFoot>
          <Muted>
            {reckoned.deeds.length === 0
              ? 'Decide on each item. Whatever you leave open stays in the list.'
              : [
                  reckoned.shelved > 0 && `${money(reckoned.shelved)} back to shelves`,
                  reckoned.lost > 0 && `${money(reckoned.lost)} written off`,
                  reckoned.sentBack > 0 && `${money(reckoned.sentBack)} back to customers`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
          </Muted>
          <Push />
          <Button
            look="go"
            isDisabled={reckoned.deeds.length === 0 || reckoned.faults.size > 0}
            busy={settle.isPending}
            onPress={post}
          >
            {reckoned.deeds.length === 0
              ? 'Process items'
              : `Process ${count(new Set(reckoned.deeds.map(({ pieceId }) => pieceId)).size, 'item')}`}
          </Button>
        </StickyFoot>
      )}
    </>
  );
}

/** Whether kits of a line are to go back to their customer. */
const goesBack = ({ pieces }: ReturnLine, typed: TypedPile): boolean =>
  pieces.some(({ id }) => (typed.get(id)?.amounts['sent-back'] ?? '') !== '');

interface HeadProps {
  readonly of: ReturnDetail;
  readonly line: ReturnLine;
  readonly goesBack: boolean;
  readonly onAll: () => void;
  /** Sends so many kits back as they are; none where they are kept after all. */
  readonly onBack: (kits: number) => void;
}

function LineHead({ of, line, goesBack: isBack, onAll, onBack }: HeadProps) {
  const format = useFormat();
  const most = line.isKit ? kitsThatCanGo(line) : 0;
  const [text, setText] = useState(String(most));
  const choose = (next: string) => {
    setText(next);
    if (/^\d+$/.test(next) && Number(next) <= most) onBack(Number(next));
  };
  return (
    <Head>
      <td colSpan={6}>
        <Row $gap={10} $wrap>
          <Tile code={line.code} size={30} />
          <span>
            <Link to={`/take-apart/returns/${of.id}`}>{of.number}</Link> · {of.customer} ·{' '}
            <b>
              {format.quantity(line.quantity, line.unit, line.decimals)} × {line.name}
            </b>
            <br />
            <Faint>
              {line.reason} · {line.condition}
              {line.remark && ` · “${line.remark}”`} · shipped with {line.shipment} · here {waitedWords(of)}
            </Faint>{' '}
            {line.tooLate !== null && <Late>{count(line.tooLate, 'day')} too late</Late>}
          </span>
          <Push />
          <Button look="ghost" aria-label={`All good: ${line.name} of ${of.number}`} onPress={onAll}>
            All good
          </Button>
          {isBack && most > 1 && (
            <Part $width={90}>
              <Field
                label={`Quantity of ${line.name} of ${of.number} going back to the customer`}
                hideLabel
                suffix="back"
                numeric
                value={text}
                onChange={choose}
                error={/^\d+$/.test(text) && Number(text) <= most ? undefined : `Up to ${most}.`}
              />
            </Part>
          )}
          {most > 0 && (
            <Button
              look="ghost"
              aria-label={`${isBack ? 'Don’t send back' : 'Send back'}: ${line.name} of ${of.number}`}
              onPress={() => (isBack ? onBack(0) : choose(String(most)))}
            >
              {isBack ? 'Don’t send back' : 'Send back'}
            </Button>
          )}
        </Row>
      </td>
    </Head>
  );
}

interface RowProps {
  readonly piece: ReturnPiece;
  readonly line: ReturnLine;
  readonly typed: TypedPiece;
  readonly set: (part: Partial<TypedPiece>) => void;
  readonly error: string | undefined;
}

function PieceRow({ piece, line, typed, set, error }: RowProps) {
  const format = useFormat();
  const stores = useQuestion('stores', {}).data ?? [];
  const name = pieceName(piece);
  return (
    <tr id={`piece-${piece.id}`}>
      <td className={line.isKit ? 'inset' : undefined}>
        <Cell>
          <Tile code={piece.code} size={28} />
          <span>
            <b>{name}</b>
            <br />
            <Faint>
              {piece.code}
              {piece.insteadOf && ` · instead of ${piece.insteadOf}`}
            </Faint>
          </span>
        </Cell>
      </td>
      <td className="num">{format.quantity(piece.waiting, piece.unit, piece.decimals)}</td>
      <td className="num">{format.money(piece.waitingValue)}</td>
      <td>
        {line.isKit && typed.amounts['sent-back'] && (
          <Muted>
            {typed.amounts['sent-back'] === piece.waiting ? '' : `${typed.amounts['sent-back']} `}back to the customer,
            with the rest of the kit
          </Muted>
        )}
        {line.isKit && typed.amounts['sent-back'] === piece.waiting ? (
          error && <Late role="alert">{error}</Late>
        ) : line.isKit ? (
          <Row $gap={6} $start>
            {PARTS.map(([outcome, word], index) => (
              <Field
                key={outcome}
                label={`${word} ${name}`}
                hideLabel
                suffix={word.toLowerCase()}
                numeric
                value={typed.amounts[outcome] ?? ''}
                onChange={(text) => set({ amounts: { ...typed.amounts, [outcome]: text } })}
                onKeyDown={(event) => stepLines(event, true)}
                error={index === 0 ? error : undefined}
              />
            ))}
          </Row>
        ) : (
          <Whole piece={piece} name={name} typed={typed} set={set} error={error} />
        )}
      </td>
      <td>
        {(typed.amounts.shelf ?? '') !== '' && (
          <Choice
            label={`Bin for ${name}`}
            hideLabel
            value={typed.binId || String(piece.homeBinId ?? '')}
            options={shelfOptions(stores)}
            onChange={(binId) => set({ binId })}
          />
        )}
      </td>
      <td>
        {Object.keys(typed.amounts).some((outcome) => outcome !== 'shelf' && typed.amounts[outcome as SettledBy]) && (
          <Field
            label={`Note on ${name}`}
            hideLabel
            placeholder={typed.amounts['not-ours'] ? 'Item' : 'Problem'}
            value={typed.note}
            onChange={(note) => set({ note })}
          />
        )}
      </td>
    </tr>
  );
}

/** A thing of its own becomes one thing; several of it may be parted by number. */
function Whole({ piece, name, typed, set, error }: Omit<RowProps, 'line'> & { name: string }) {
  const go = useNavigate();
  const rework = useCommand('reworkReturn', ({ buildId }) => void go(`/build/${buildId}`));
  const chosen = WHOLE.find((outcome) => (typed.amounts[outcome] ?? '') !== '') ?? '';
  const isOne = piece.waiting === '1';
  const units = piece.serial
    ? `&serials=${encodeURIComponent(piece.serial)}`
    : piece.lot
      ? `&lot=${encodeURIComponent(piece.lot)}`
      : '';
  const problem = problemOf(rework.error);
  return (
    <>
      <Row $gap={6} $wrap>
        <Choice
          label={`Decision on ${name}`}
          hideLabel
          value={chosen}
          options={[['', 'decide…'], ...WHOLE.map((outcome): [string, string] => [outcome, settledWords[outcome]])]}
          onChange={(outcome) => set({ amounts: outcome === '' ? {} : { [outcome]: piece.waiting } })}
        />
        {chosen !== '' && !isOne && (
          <Field
            label={`Quantity of ${name}`}
            hideLabel
            numeric
            value={typed.amounts[chosen] ?? ''}
            onChange={(text) => set({ amounts: { [chosen]: text } })}
            onKeyDown={(event) => stepLines(event, true)}
            error={error}
          />
        )}
        {chosen === '' && piece.canApart && (
          <LinkButton look="ghost" to={`/take-apart/stock?item=${piece.itemId}&piece=${piece.id}${units}`}>
            Take apart
          </LinkButton>
        )}
        {chosen === '' && piece.canRework && (
          <Button
            look="ghost"
            aria-label={`Refresh ${name}`}
            busy={rework.isPending}
            onPress={() => rework.mutate({ params: { id: piece.id }, body: { quantity: piece.waiting } })}
          >
            Refresh
          </Button>
        )}
      </Row>
      {isOne && error && <Late role="alert">{error}</Late>}
      {problem && <Late role="alert">{problem.detail}</Late>}
    </>
  );
}

/** A scan of a serial, a lot, an item or a return goes to its row. @returns whether any is called so */
function scrollTo(returns: readonly ReturnDetail[], text: string): boolean {
  const label = labelOf(text);
  const typed = (label?.serial ?? label?.lot ?? text.trim()).toLowerCase();
  for (const one of returns)
    for (const line of one.lines)
      for (const piece of line.pieces.filter(isWaiting)) {
        const names = [piece.serial, piece.lot, piece.code, one.number];
        if (!names.some((name) => name?.toLowerCase() === typed)) continue;
        const row = document.getElementById(`piece-${piece.id}`);
        row?.scrollIntoView({ block: 'center' });
        row?.querySelector<HTMLElement>('input, button')?.focus();
        return true;
      }
  return false;
}
