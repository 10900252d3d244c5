import type { Item, ItemDetail } from '@yosegi/contract';
import { isGtin } from '@yosegi/core/items';
import { writeSerials } from '@yosegi/core/tracking';
import styled from 'styled-components';
import { useQuestion } from '../api/client.ts';
import { UsedView } from '../definitions/index.ts';
import { LabelButton } from '../devices/index.ts';
import { MovementTable } from '../ledger/index.ts';
import { LotTable, SerialTable } from '../tracking/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Chip } from '../ui/Chip.tsx';
import { negated, useFormat } from '../ui/format.ts';
import { BigNumber, KeyValue, Margin, Sheet, SheetAndMargin, SheetHead } from '../ui/layout.ts';
import { OwnFacts } from '../ui/OwnFields.tsx';
import { Answer } from '../ui/States.tsx';
import { Swatch } from '../ui/Stave.tsx';
import { H2, Para } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Late, Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { CostEffect } from './CostEffect.tsx';
import { costNames } from './costNames.ts';
import { Coming, Promised, Sales } from './ItemFlow.tsx';
import { Outliving } from './Outliving.tsx';

const Figures = styled.dl`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(96px, 1fr)); margin: 4px 0 16px; border: 1px solid var(--line); border-radius: 3px;
  div { padding: 8px 12px; border-right: 1px solid var(--line-soft); } div:last-child { border: 0; }
  dt { font-size: 12px; color: var(--ink-2); } dd { margin: 0; font: 600 19px/1.25 var(--display); white-space: nowrap; small { font: 12px var(--text); color: var(--ink-2); } }
  @media (max-width: 700px) { grid-template-columns: 1fr 1fr; }
`;

const Tabs = styled.nav`
  display: flex; gap: 4px; border-bottom: 1px solid var(--line); margin-bottom: 6px;
  button { border-radius: 3px 3px 0 0; border-bottom: 0; } button[aria-current] { box-shadow: inset 0 3px var(--honey); border-color: var(--line); }
`;

/** One item: what is there, what is promised, what is free, and how it came to be so. */
export function ItemSheet({ item }: { item: ItemDetail }) {
  const format = useFormat();
  const amount = (text: string) => format.quantity(text, item.unit, item.decimals);
  const unit = item.unit === 'each' ? '' : item.unit;
  const overdrawn = Number(item.free) < 0;
  const [view, setView] = useAddress('view');
  return (
    <SheetAndMargin>
      <Sheet>
        <SheetHead>
          <Tile code={item.code} size={52} />
          <div>
            <h1>{item.name}</h1>
            <Lead>
              {item.code} · {item.source}
              {item.homeBin && ` · home bin ${item.homeBin}`}
              {item.tracking !== 'none' && ` · tracked by ${item.tracking}`}
              {item.taxFree && ' · tax-free'}
            </Lead>
          </div>
          <Push />
          <Row>
            {!item.archived && <LinkButton to={`/stock/receive?item=${item.id}`}>Receive</LinkButton>}
            {item.tracking === 'none' && (
              <LabelButton ask={(copies) => ({ itemId: item.id, copies })}>Labels</LabelButton>
            )}
            <LinkButton to={`/stock/items/${item.id}?edit=1`}>Change</LinkButton>
          </Row>
        </SheetHead>
        {item.archived && (
          <Row $bottom={8}>
            <Chip $tone="held">Archived: it is not offered anywhere</Chip>
          </Row>
        )}
        <Para $bottom={10}>
          {overdrawn ? (
            <Late>{amount(negated(item.free))} more is promised than you have.</Late>
          ) : (
            <Muted>{Number(item.free) === 0 ? 'Nothing is free.' : `${amount(item.free)} can be promised.`}</Muted>
          )}
        </Para>
        <Figures>
          <Figure label="On hand" text={format.number(item.onHand)} unit={unit} />
          {Number(item.onBench) !== 0 && (
            <Figure label="On benches, in parcels" text={format.number(item.onBench)} unit={unit} />
          )}
          {Number(item.held) !== 0 && <Figure label="Held" text={format.number(item.held)} unit={unit} />}
          <Figure label="Promised" text={format.number(item.promised)} unit={unit} swatch="promised" />
          <Figure label="Free" text={format.number(item.free)} unit={unit} swatch={overdrawn ? 'short' : 'free'} />
          {Number(item.coming) > 0 && (
            <Figure label="Coming" text={format.number(item.coming)} unit={unit} swatch="coming" />
          )}
          <Figure label="Value" text={format.money(item.value)} />
        </Figures>
        <Tabs aria-label="About the item">
          {(
            [
              ['', 'History'],
              ...(item.tracking === 'lot' ? ([['lots', 'Lots']] as const) : []),
              ...(item.tracking === 'serial' ? ([['serials', 'Serials']] as const) : []),
              ['used', 'Where used'],
              ['effect', 'If its cost changed'],
            ] as const
          ).map(([key, title]) => (
            <Button
              key={key}
              look={view === key ? 'plain' : 'ghost'}
              aria-current={view === key ? 'page' : undefined}
              onPress={() => setView(key)}
            >
              {title}
            </Button>
          ))}
        </Tabs>
        {view === '' && <MovementTable itemId={item.id} decimals={item.decimals} />}
        {view === 'lots' && <LotTable itemId={item.id} />}
        {view === 'serials' && <SerialTable item={item} />}
        {view === 'used' && <UsedView item={item} />}
        {view === 'effect' && <CostEffect key={item.version} item={item} />}
      </Sheet>
      <Margin aria-label="Places and costs">
        <h2>Locations</h2>
        <Bins item={item} />
        <Promised item={item} />
        <Coming item={item} />
        <H2 $top={22}>Cost</H2>
        <BigNumber $small>{format.unitCost(item.averageCost)}</BigNumber>
        <Muted>
          {costNames[item.costFrom].toLowerCase()}, per {item.unit}
        </Muted>
        <KeyValue>
          <span>Latest</span>
          <b>{item.latestCost === null ? '–' : format.unitCost(item.latestCost)}</b>
        </KeyValue>
        <KeyValue>
          <span>Standard</span>
          <b>{item.standardCost === null ? '–' : format.unitCost(item.standardCost)}</b>
        </KeyValue>
        <KeyValue>
          <span>Sells at</span>
          <b>{item.sellPrice === null ? '–' : format.money(item.sellPrice)}</b>
        </KeyValue>
        {item.reorderPoint !== null && (
          <KeyValue>
            <span>Reorder at</span>
            <b>{amount(item.reorderPoint)}</b>
          </KeyValue>
        )}
        {item.definitionId !== null && (
          <Row $top={14}>
            <LinkButton to={`/define/${item.definitionId}`}>Bill of materials</LinkButton>
            <LinkButton to={`/take-apart/stock?item=${item.id}`}>Take apart</LinkButton>
          </Row>
        )}
        <Sales item={item} />
        <About item={item} />
        {item.note && <Para $top={14}>{item.note}</Para>}
        <Outliving item={item} />
      </Margin>
    </SheetAndMargin>
  );
}

/** Everything else that is kept of an item. */
function About({ item }: { item: ItemDetail }) {
  const format = useFormat();
  const { suppliers, packs, fields, barcode } = item;
  if (suppliers.length + packs.length + fields.length === 0 && !barcode) return null;
  return (
    <>
      <H2 $top={18}>Details</H2>
      {barcode && (
        <KeyValue>
          <span>{isGtin(barcode) ? 'GTIN' : 'Barcode'}</span>
          <b>{barcode}</b>
        </KeyValue>
      )}
      {packs.map((pack) => (
        <KeyValue key={pack.name}>
          <span>1 {pack.name}</span>
          <b>{format.quantity(pack.one, item.unit, item.decimals)}</b>
        </KeyValue>
      ))}
      {suppliers.map((supplier) => (
        <KeyValue key={supplier.supplierId}>
          <span>
            {supplier.name}
            {supplier.leadDays !== null && <Muted> · {supplier.leadDays} days</Muted>}
          </span>
          <b>
            {format.unitCost(supplier.price)}
            {supplier.breaks.map((one) => (
              <Muted key={one.from}>
                {' '}
                · {format.unitCost(one.price)} from {format.quantity(one.from, item.unit, item.decimals)}
              </Muted>
            ))}
          </b>
        </KeyValue>
      ))}
      <OwnFacts fields={fields} />
    </>
  );
}

function Figure({
  label,
  text,
  unit = '',
  swatch,
}: {
  label: string;
  text: string;
  unit?: string;
  swatch?: 'promised' | 'free' | 'short' | 'coming';
}) {
  return (
    <div>
      <dt>
        {swatch && <Swatch $of={swatch} />}
        {label}
      </dt>
      <dd>
        {text} <small>{unit}</small>
      </dd>
    </div>
  );
}

function Bins({ item }: { item: Item }) {
  const format = useFormat();
  const bins = useQuestion('itemBins', { params: { id: item.id } });
  return (
    <Answer of={bins}>
      {(rows) =>
        rows.length === 0 ? (
          <Muted>Not in any bin.</Muted>
        ) : (
          rows.map((row) => (
            <KeyValue key={`${row.binId}:${row.build}`}>
              <span>
                {row.kind === 'bench' ? `Bench, for ${row.build}` : row.bin} <Muted>· {row.store}</Muted>
                {row.kind === 'quarantine' && <Muted> · quarantine</Muted>}
                {row.pieces.some((piece) => piece.lot) && (
                  <>
                    <br />
                    <Faint>
                      {row.pieces
                        .map((piece) => `${piece.lot}${piece.held ? ' (held)' : ''}`)
                        .slice(0, 6)
                        .join(', ')}
                    </Faint>
                  </>
                )}
                {row.pieces.some((piece) => piece.serial) && (
                  <>
                    <br />
                    <Faint>{writeSerials(row.pieces.flatMap((piece) => piece.serial ?? []).slice(0, 60))}</Faint>
                  </>
                )}
              </span>
              <b>{format.quantity(row.quantity, item.unit, item.decimals)}</b>
            </KeyValue>
          ))
        )
      }
    </Answer>
  );
}
