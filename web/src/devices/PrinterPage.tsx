import { type Label, type LabelJob, labelPdfPath } from '@yosegi/contract';
import styled from 'styled-components';
import { useCommand, usePages, useQuestion } from '../api/client.ts';
import { LabelMark } from '../print/index.ts';
import { Button } from '../ui/Button.tsx';
import { count } from '../ui/format.ts';
import { Sheet, Strip, StripGroup, StripHead, StripList, Three } from '../ui/layout.ts';
import { More } from '../ui/More.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';
import { StripButton } from '../ui/StripItem.tsx';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { When } from '../ui/When.tsx';

const Sides = styled.div`display: flex; align-items: flex-start; justify-content: space-between; gap: 10px;`;
const Labels = styled.div`display: flex; flex-wrap: wrap; gap: 14px; margin-top: 16px;`;
const Card = styled.figure`
  margin: 0; width: 248px; min-height: 152px; background: var(--field); color: #000; border: 1px solid var(--line); border-radius: 6px; padding: 12px;
  display: grid; grid-template-rows: auto 1fr auto; gap: 6px; box-shadow: 0 1px 4px var(--hint);
  b { line-height: 1.15; } p { font-size: 11.5px; line-height: 1.3; margin: 0; } figcaption { font-size: 9px; text-align: center; overflow-wrap: anywhere; }
`;

/** The label printer's queue: what waits, how it will look, and what was printed. */
export function PrinterPage() {
  const [chosen, setChosen] = useAddress('job');
  const pages = usePages('labelJobs', { limit: 50 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  const waiting = rows.filter((row) => row.state === 'waiting');
  const id = Number(chosen) || waiting.at(-1)?.id || rows[0]?.id;
  return (
    <Three $margin={false}>
      <Strip {...(id ? {} : { 'data-alone': true })}>
        <StripHead>
          <b>{waiting.length === 0 ? 'Nothing to print.' : `${count(waiting.length, 'job')} to print.`}</b>
        </StripHead>
        <StripList aria-label="Label jobs">
          <Answer of={pages}>
            {() => (
              <>
                <Group title="Pending" rows={[...waiting].reverse()} id={id} choose={setChosen} />
                <Group title="Done" rows={rows.filter((row) => row.state !== 'waiting')} id={id} choose={setChosen} />
                <More of={pages}>Show older</More>
              </>
            )}
          </Answer>
        </StripList>
      </Strip>
      <Sheet>
        {id ? (
          <One key={id} id={id} />
        ) : (
          <EmptyState isPage title="No labels yet">
            Labels come here from receipts, lots, items and bins. This stand-in makes a PDF with one label per page,
            which any label printer can print.
          </EmptyState>
        )}
      </Sheet>
    </Three>
  );
}

interface GroupProps {
  readonly title: string;
  readonly rows: readonly LabelJob[];
  readonly id: number | undefined;
  readonly choose: (id: string) => void;
}
function Group({ title, rows, id, choose }: GroupProps) {
  if (rows.length === 0) return null;
  return (
    <>
      <StripGroup>
        {title} · {rows.length}
      </StripGroup>
      {rows.map((row) => (
        <StripButton
          key={row.id}
          type="button"
          aria-current={row.id === id || undefined}
          onClick={() => choose(String(row.id))}
        >
          <b>{row.title}</b>
          <br />
          <small>
            {count(row.count, 'label')} · {row.state === 'waiting' ? 'asked for' : row.state}{' '}
            <When at={row.printedAt ?? row.at} />
          </small>
        </StripButton>
      ))}
    </>
  );
}

function One({ id }: { id: number }) {
  const job = useQuestion('labelJob', { params: { id } });
  const end = useCommand('endLabelJob');
  return (
    <Answer of={job}>
      {(data) => (
        <>
          <Row $wrap>
            <div>
              <h1>{data.title}</h1>
              <Lead>
                {count(data.count, 'label')} of 62 × 38 mm, asked for by {data.person}.
              </Lead>
            </div>
          </Row>
          <Row $top={12}>
            <Button
              look={data.state === 'waiting' ? 'go' : 'plain'}
              onPress={() => {
                window.open(labelPdfPath(id), '_blank', 'noopener');
                if (data.state === 'waiting') end.mutate({ params: { id }, body: { as: 'printed' } });
              }}
            >
              {data.state === 'waiting' ? `Print ${count(data.count, 'label')}` : 'Print again'}
            </Button>
            {data.state === 'waiting' && (
              <Button busy={end.isPending} onPress={() => end.mutate({ params: { id }, body: { as: 'cancelled' } })}>
                Remove from the queue
              </Button>
            )}
          </Row>
          <Labels aria-label="Preview">
            {data.labels.slice(0, 60).map((label, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: labels of a job never change
              <LabelCard key={index} label={label} />
            ))}
          </Labels>
          {data.labels.length > 60 && <Faint>and {data.labels.length - 60} more</Faint>}
        </>
      )}
    </Answer>
  );
}

/** A label as it will be printed. */
export function LabelCard({ label }: { label: Label }) {
  const square = label.symbol === 'gs1datamatrix';
  return (
    <Card>
      <Row $gap={8} $start>
        {label.code && <Tile code={label.code} size={34} />}
        <b>{label.title}</b>
      </Row>
      <Sides>
        <div>
          {label.lines.map((line) => (
            <p key={line}>{line}</p>
          ))}
        </div>
        {square && (
          <div>
            <LabelMark symbol={label.symbol} text={label.text} width={70} />
          </div>
        )}
      </Sides>
      <div>
        {!square && label.text && <LabelMark symbol={label.symbol} text={label.text} width={200} />}
        <figcaption>{label.text}</figcaption>
      </div>
    </Card>
  );
}
