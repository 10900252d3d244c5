import type { BuildDetail, BuildLine } from '@yosegi/contract';
import { formatDecimal, readExact } from '@yosegi/core/number';
import { Check, Clock, StickyNote, Tag } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { useCan } from '../api/person.ts';
import { Button } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { Stave } from '../ui/Stave.tsx';
import { Th } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Muted } from '../ui/text.ts';
import { useMeant } from '../ui/useMeant.ts';
import { canComeBack, TakeBack } from './TakeBack.tsx';

/** Beneath a figure, no larger than it. */
const Small = styled(Button)`padding: 0; min-height: 24px; font-size: 12.5px;`;

/** What a build needs, what stands on its bench and what is still open. */
export function BuildLines({ build, isPartsOnly = false }: { build: BuildDetail; isPartsOnly?: boolean }) {
  return (
    <Grid>
      <thead>
        <tr>
          <Th $width={230}>Part</Th>
          <th>Taken</th>
          <th className="num">Needed</th>
          <th className="num">On the bench</th>
          <th className="num">Used</th>
          <th className="num">Still open</th>
          <Th $width={120}>On the shelf</Th>
        </tr>
      </thead>
      <tbody>
        {build.lines
          .filter(({ kind }) => !isPartsOnly || kind === 'part')
          .map((line) =>
            line.item ? (
              <PartRow key={line.id} line={line} item={line.item} build={build} />
            ) : (
              <OtherRow key={line.id} line={line} build={build} />
            ),
          )}
      </tbody>
    </Grid>
  );
}

interface PartRowProps {
  readonly line: BuildLine;
  readonly item: NonNullable<BuildLine['item']>;
  readonly build: BuildDetail;
}

function PartRow({ line, item, build }: PartRowProps) {
  const format = useFormat();
  const mayWork = useCan('build');
  const [isBack, setBack] = useState(false);
  const open = build.state !== 'finished' && build.state !== 'cancelled';
  const meant = useMeant<HTMLTableRowElement>(line.id);
  const canGoBack = mayWork && build.state === 'on-bench' && canComeBack(line) > 0;
  const amount = (text: string) => format.quantity(text, item.unit, item.decimals);
  const done = line.open === '0' && line.taken === 'picked-first';
  const shelf = line.bins.reduce((sum, bin) => sum + readExact(bin.quantity), 0);
  const needed = readExact(line.open);
  return (
    <tr {...meant}>
      <td>
        <Cell>
          <Tile code={item.code} size={28} />
          <span>
            <b>{item.name}</b>
            <br />
            <Faint>
              {item.code}
              {line.added && ` · added by ${line.added.by}: ${line.added.because}`}
            </Faint>
          </span>
        </Cell>
        {isBack && <TakeBack build={build} line={line} item={item} onDone={() => setBack(false)} />}
      </td>
      <td className="one-line">{line.taken?.replace('-', ' ')}</td>
      <td className="num">{amount(line.required)}</td>
      <td className="num">
        {line.onBench === '0' ? '–' : amount(line.onBench)}
        {line.pieces.some((piece) => piece.held !== null) && (
          <div>
            <Chip $tone="held">held</Chip>
          </div>
        )}
        {canGoBack && !isBack && (
          <div>
            <Small look="ghost" aria-label={`Put back ${item.name}`} onPress={() => setBack(true)}>
              put back
            </Small>
          </div>
        )}
      </td>
      <td className="num">{line.used === '0' ? '–' : amount(line.used)}</td>
      <td className="num">
        {done ? (
          <Muted>
            <Check size={15} aria-hidden /> {open ? 'picked' : 'done'}
          </Muted>
        ) : (
          <b>{amount(line.open)}</b>
        )}
      </td>
      <td>
        {open && needed > 0 ? (
          <>
            <Stave
              small
              amounts={{
                needed,
                free: Math.max(0, Math.min(shelf, needed * 1.25)),
                coming: 0,
                promised: 0,
                short: Math.max(0, needed - shelf),
              }}
              label={`${amount(formatDecimal(shelf))} on the shelf for ${amount(line.open)}`}
            />
            <Faint>{line.bins.map((bin) => `${bin.bin}: ${format.number(bin.quantity)}`).join(', ') || 'none'}</Faint>
          </>
        ) : (
          ''
        )}
      </td>
    </tr>
  );
}

function OtherRow({ line, build }: { line: BuildLine; build: BuildDetail }) {
  const format = useFormat();
  const icon =
    line.kind === 'labour' ? (
      <Clock size={20} aria-hidden />
    ) : line.kind === 'charge' ? (
      <Tag size={20} aria-hidden />
    ) : (
      <StickyNote size={20} aria-hidden />
    );
  if (line.kind === 'note') {
    return (
      <tr>
        <td colSpan={7}>
          <Cell>
            {icon}
            <i>{line.text}</i>
          </Cell>
        </td>
      </tr>
    );
  }
  const per =
    line.basis === 'per-run' ? 'a batch' : `for ${format.quantity(build.outputQuantity, build.unit, build.decimals)}`;
  return (
    <tr>
      <td>
        <Cell>
          {icon}
          <b>{line.text || 'Labour'}</b>
        </Cell>
      </td>
      <td>{line.kind}</td>
      <td className="num">
        {line.kind === 'labour' ? `${format.number(line.amount)} min` : format.money(line.amount)} {per}
      </td>
      <td className="num">–</td>
      <td className="num">
        {line.kind === 'labour' && line.used !== '0' ? `${format.number(line.used, 0, 1)} min` : '–'}
      </td>
      <td />
      <td />
    </tr>
  );
}
