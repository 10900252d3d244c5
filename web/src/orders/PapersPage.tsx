import type { Company, Order } from '@yosegi/contract';
import { api, LOGO_PATH } from '@yosegi/contract';
import { paperColumns } from '@yosegi/core/people';
import { useContext, useRef } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, useQuestion } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { usePictureUpload } from '../api/usePictureUpload.ts';
import { LabelButton } from '../devices/index.ts';
import { CustomerPaper, type PaperKind, paperKinds, paperTitles } from '../print/index.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { FileInput } from '../ui/FileInput.tsx';
import { CompanyContext, count } from '../ui/format.ts';
import { AnswerPane, Ask, AskAnswer, Foot, Form, Together } from '../ui/layout.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox, SaveProblem } from '../ui/Problem.tsx';
import { Answer } from '../ui/States.tsx';
import { Stack } from '../ui/space.ts';
import { TextArea } from '../ui/TextArea.tsx';
import { Tick } from '../ui/Tick.tsx';
import { Lead, Muted, Push, Row } from '../ui/text.ts';
import { useAddress } from '../ui/useAddress.ts';
import { type RecordForm, useRecordForm } from '../ui/useRecordForm.ts';

/** What is beside the paper stays off it. */
const Screen = styled(AskAnswer)`
  @media print { display: block; height: auto; > aside { display: none; } }
`;
const Desk = styled.div`overflow: auto; flex: 1; background: var(--birch); padding: 4px 18px; @media print { overflow: visible; padding: 0; background: none; }`;
const OffPaper = styled(Foot)`@media print { display: none; }`;

/** The papers of an order, as its customer gets them, and how they look. */
export function PapersPage() {
  const { id } = useParams();
  const order = useQuestion('order', { params: { id: Number(id) } });
  return <Answer of={order}>{(data) => <Papers order={data} />}</Answer>;
}

const columnWords: Record<(typeof paperColumns)[number], string> = {
  tile: 'the tile or picture of each item',
  code: 'our item codes',
  price: 'prices and amounts',
  day: 'the day each line is expected',
};

/** The look as it is typed: text, so that it can be kept and compared. */
const lookOf = (company: Company | null) => ({
  size: company?.papers.size ?? 'A4',
  head: company?.papers.head ?? '',
  foot: company?.papers.foot ?? '',
  columns: (company?.papers.columns ?? []).join(' '),
});
const readLook = ({ size, head, foot, columns }: ReturnType<typeof lookOf>) => ({
  size,
  head,
  foot,
  columns: paperColumns.filter((column) => columns.split(' ').includes(column)),
});

const PAPERS = api.updatePapers.body.omit({ version: true });
const SHOWN = ['size', 'head', 'foot', 'columns'];

function Papers({ order }: { order: Order }) {
  const company = useContext(CompanyContext);
  const mayChange = useCan('set-up');
  const customer = useQuestion('customer', { params: { id: order.customerId } });
  const usual: PaperKind =
    order.standing === 'quote' ? 'quote' : order.documents.length > 0 ? 'packing-slip' : 'confirmation';
  const [kind, setKind] = useAddress('paper', usual);
  const standing = order.documents.filter(({ undone }) => !undone);
  const [shipmentId, setShipmentId] = useAddress('shipment', String(standing.at(0)?.id ?? ''));
  const shipment = useQuestion('shipment', { params: { id: Number(shipmentId) } }, { enabled: shipmentId !== '' });
  const notify = useNotify();
  const update = useCommand(
    'updatePapers',
    () => notify({ text: 'Paper layout saved.' }),
    (saved) => form.saved(saved),
  );
  const form = useRecordForm({
    record: company,
    read: lookOf,
    bodyOf: readLook,
    schema: PAPERS,
    keptAs: 'papers',
    name: 'paper layout',
    shownAt: SHOWN,
    command: update,
  });
  const look = { ...readLook(form.typed), logo: company.papers.logo };
  const isSlip = kind === 'packing-slip';
  const address = customer.data ? (isSlip && (order.deliverTo || customer.data.delivery)) || customer.data.billing : '';
  return (
    <Screen>
      <Ask aria-label="Which paper">
        <h2>
          <Link to={`/orders/${order.id}`}>{order.number}</Link>
        </h2>
        <Lead>{order.customer}</Lead>
        <Stack $gap={12} $top={14}>
          <Choice
            label="Paper"
            value={kind}
            onChange={setKind}
            options={paperKinds.map((one): [string, string] => [one, paperTitles[one]])}
          />
          {isSlip && standing.length > 0 && (
            <Choice
              label="Which shipment"
              value={shipmentId}
              onChange={setShipmentId}
              options={standing.map((one): [string, string] => [String(one.id), one.number])}
            />
          )}
        </Stack>
        {mayChange && <LookForm form={form} update={update} company={company} />}
      </Ask>
      <AnswerPane>
        <Desk>
          {isSlip && standing.length === 0 ? (
            <Lead as="div">
              Nothing has shipped yet. Packing slips are printed for shipments. The pick list shows what to pack.
            </Lead>
          ) : isSlip && !shipment.data ? (
            <Answer of={shipment}>{() => null}</Answer>
          ) : (
            <CustomerPaper
              kind={kind as PaperKind}
              order={order}
              shipment={shipment.data ?? null}
              company={company}
              look={look}
              address={address}
            />
          )}
        </Desk>
        <OffPaper>
          <Muted>
            {count((isSlip ? (shipment.data?.lines ?? []) : order.lines).length, 'line')} on {look.size}
          </Muted>
          <Push />
          <LinkButton look="ghost" to={`/orders/${order.id}`}>
            Back to the order
          </LinkButton>
          <LinkButton look="ghost" to={`/print/order-pick/${order.id}`}>
            Pick list
          </LinkButton>
          {isSlip && shipmentId !== '' && (
            <LabelButton ask={{ shipmentId: Number(shipmentId) }}>Shipping label</LabelButton>
          )}
          <Button look="go" isDisabled={isSlip && !shipment.data} onPress={() => window.print()}>
            Print the {paperTitles[kind as PaperKind].toLowerCase()}
          </Button>
        </OffPaper>
      </AnswerPane>
    </Screen>
  );
}

interface LookProps {
  readonly form: RecordForm<ReturnType<typeof lookOf>, ReturnType<typeof readLook>>;
  readonly update: ReturnType<typeof useCommand<'updatePapers'>>;
  readonly company: Company;
}

/** How all papers look; the one beside it follows while it is typed. */
function LookForm({ form, update, company }: LookProps) {
  const { size, columns } = readLook(form.typed);
  return (
    <Form
      $columns={1}
      $top={24}
      onSubmit={form.submit((body) => update.mutate({ body: { ...body, version: form.version } }))}
    >
      <h2>Paper layout</h2>
      <LogoField company={company} />
      <Choice
        label="Size"
        value={size}
        onChange={(next) => form.set({ size: next as typeof size })}
        options={[
          ['A4', 'A4'],
          ['Letter', 'Letter'],
        ]}
      />
      <TextArea label="Header" {...form.field('head')} />
      <TextArea label="Footer" {...form.field('foot')} />
      <Together>
        <legend>Show</legend>
        {paperColumns.map((column) => (
          <div key={column}>
            <Tick
              isOn={columns.includes(column)}
              onChange={(isOn) =>
                form.set({ columns: (isOn ? [...columns, column] : columns.filter((one) => one !== column)).join(' ') })
              }
            >
              {columnWords[column]}
            </Tick>
          </div>
        ))}
      </Together>
      <SaveProblem command={update} over={form} theirs="Paper layout was changed" shownAt={SHOWN} />
      <div>
        <Button type="submit" busy={update.isPending}>
          Save layout
        </Button>
      </div>
    </Form>
  );
}

function LogoField({ company }: { company: Company }) {
  const chooser = useRef<HTMLInputElement>(null);
  const { send, busy, error } = usePictureUpload(LOGO_PATH, ['places']);
  const remove = useCommand('removeLogo');
  return (
    <div>
      <Row $gap={6} $wrap>
        <Button busy={busy} onPress={() => chooser.current?.click()}>
          {company.papers.logo ? 'Change logo…' : 'Choose a logo…'}
        </Button>
        {company.papers.logo && (
          <AskFirst
            label="Remove the logo…"
            look="ghost"
            title="Remove the logo?"
            action="Remove the logo"
            keep="Keep the logo"
            busy={remove.isPending}
            onDo={() => remove.mutate({})}
          >
            Yosegi has no other copy. Papers are printed without a logo.
          </AskFirst>
        )}
      </Row>
      <ProblemBox error={error ?? remove.error} />
      <FileInput chooser={chooser} accept="image/*" label="Logo file" onFile={send} />
    </div>
  );
}
