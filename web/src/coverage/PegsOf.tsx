import type { Pegs } from '@yosegi/contract';
import { readForText } from '@yosegi/core/number';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { forFingers } from '../ui/box.ts';
import { type Format, useFormat } from '../ui/format.ts';
import { Cell, Grid } from '../ui/layout.ts';
import { H2 } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late } from '../ui/text.ts';
import { TurnOf } from './TurnOf.tsx';

const PartLink = styled(Link)`display: inline-flex; align-items: center; ${forFingers}`;

interface Props {
  readonly kind: 'build' | 'order' | 'purchase';
  readonly id: number;
}

/** What feeds a build or an order and whom a build or a purchase order feeds; nothing where there is neither. */
export function PegsOf({ kind, id }: Props) {
  const { data } = useQuestion('pegs', { params: { kind, id } });
  if (!data) return null;
  return (
    <>
      {kind !== 'purchase' && <TurnOf kind={kind} id={id} />}
      {data.needs.length > 0 && <Needs needs={data.needs} />}
      {data.feeds.length > 0 && <Feeds feeds={data.feeds} />}
    </>
  );
}

function Needs({ needs }: Pick<Pegs, 'needs'>) {
  const format = useFormat();
  return (
    <section aria-label="Supply">
      <H2 $top={22} $bottom={4}>
        Supply
      </H2>
      <Grid $full>
        <thead>
          <tr>
            <th>Part</th>
            <th className="num">Still needed</th>
            <th>Comes from</th>
            <th>Available</th>
          </tr>
        </thead>
        <tbody>
          {needs.map(({ item, quantity, by, short, completeOn }) => {
            const amount = (text: string) => format.quantity(text, item.unit, item.decimals);
            return (
              <tr key={item.id}>
                <td>
                  <Cell>
                    <Tile code={item.code} size={24} />
                    <PartLink to={`/cover/time/${item.id}`}>{item.name}</PartLink>
                  </Cell>
                </td>
                <td className="num">{amount(quantity)}</td>
                <td>
                  {by.map((one, index) => (
                    <span key={`${one.kind}${one.id}${one.on}`}>
                      {index > 0 && ', '}
                      {amount(one.quantity)} {one.kind === 'shelf' ? <>from {one.number}</> : <Supply of={one} />}
                    </span>
                  ))}
                  {readForText(short) > 0 && (
                    <>
                      {by.length > 0 && ', '}
                      <Late>
                        {amount(short)} <Link to={`/cover/time/${item.id}`}>short</Link>
                      </Late>
                    </>
                  )}
                </td>
                <td className="one-line">{whenWords(completeOn, readForText(short) > 0, format)}</td>
              </tr>
            );
          })}
        </tbody>
      </Grid>
    </section>
  );
}

function Supply({ of: { kind, id, number, on } }: { of: Pegs['needs'][number]['by'][number] }) {
  const format = useFormat();
  return (
    <>
      by <Link to={kind === 'purchase' ? `/buying/orders/${id}` : `/build/${id}`}>{number}</Link>{' '}
      <Faint>{on ? format.day(on) : 'no date yet'}</Faint>
    </>
  );
}

function whenWords(completeOn: string | null, isShort: boolean, format: Format): string {
  if (completeOn === '') return 'now';
  if (completeOn !== null) return format.day(completeOn);
  return isShort ? 'not with current supply' : 'no date yet';
}

const pathOf = { order: '/orders', build: '/build' } as Readonly<Record<string, string>>;

function Feeds({ feeds }: Pick<Pegs, 'feeds'>) {
  const format = useFormat();
  return (
    <section aria-label="Goes to">
      <H2 $top={22} $bottom={4}>
        Goes to
      </H2>
      <Grid $full>
        <thead>
          <tr>
            <th>For</th>
            <th>Of</th>
            <th className="num">Quantity</th>
          </tr>
        </thead>
        <tbody>
          {feeds.map(({ item, kind, id, number, who, quantity }) => (
            <tr key={`${item.id}${kind}${id}`}>
              <td>
                {pathOf[kind] ? <Link to={`${pathOf[kind]}/${id}`}>{number}</Link> : number} <Faint>{who}</Faint>
              </td>
              <td>
                <Link to={`/cover/time/${item.id}`}>{item.name}</Link>
              </td>
              <td className="num">{format.quantity(quantity, item.unit, item.decimals)}</td>
            </tr>
          ))}
        </tbody>
      </Grid>
    </section>
  );
}
