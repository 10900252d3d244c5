import { EXPORTS_PATH, type FileKindName, IMPORTS_PATH, type ImportJob } from '@yosegi/contract';
import { fileKinds, LARGEST_FILE } from '@yosegi/core/exchange';
import { Download, FileUp } from 'lucide-react';
import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { upload } from '../api/upload.ts';
import { Button } from '../ui/Button.tsx';
import { FileInput } from '../ui/FileInput.tsx';
import { Page } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Faint, Lead, Muted, Row } from '../ui/text.ts';
import { useFileDrop } from '../ui/useFileDrop.ts';
import { ImportSheet } from './ImportSheet.tsx';

const Cards = styled.div`display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 16px; margin-top: 18px; @media (max-width: 900px) { grid-template-columns: 1fr; }`;
const Card = styled.section<{ $over: boolean }>`
  background: ${({ $over }) => ($over ? 'var(--coming-wash)' : 'var(--sheet)')}; border: 1px solid ${({ $over }) => ($over ? 'var(--honey)' : 'var(--line-soft)')};
  border-left: 5px solid var(--walnut); padding: 14px 16px; border-radius: 2px; display: grid; gap: 8px; align-content: start;
`;
const FileLink = styled.a`
  display: inline-flex; gap: 6px; align-items: center; padding: 7px 10px; border-radius: 3px; color: var(--indigo); font-weight: 600; text-decoration: none; font-size: 13.5px;
  &:hover { background: var(--paper); }
`;

const about: Record<FileKindName, { title: string; says: string }> = {
  items: {
    title: 'Items',
    says: 'What you buy and make, with prices, barcodes and custom fields.',
  },
  prices: {
    title: 'Suppliers’ prices',
    says: 'Who sells an item, with codes, prices, packs and lead times. New suppliers are added.',
  },
  stock: {
    title: 'Opening stock',
    says: 'Quantity and cost by bin, for items that haven’t moved yet.',
  },
  definitions: {
    title: 'Bills of materials',
    says: 'One row for each line of a product: parts, labour, charges and notes. Changes become the next revision.',
  },
  customers: {
    title: 'Customers',
    says: 'Who buys from you, with addresses, discounts and custom fields.',
  },
  orders: {
    title: 'Orders',
    says: 'Customers’ orders, one line a row. Rows with the same number are one order. Empty prices become your own.',
  },
};

/** A whole catalogue in and out: files are judged row by row, then brought in entirely or not at all. */
export function InOutPage() {
  const [search, setSearch] = useSearchParams();
  const job = search.get('import');
  if (job) return <ImportSheet id={job} onClose={() => setSearch({}, { replace: true })} />;
  return (
    <Page>
      <h1>Import your catalogue, or export it.</h1>
      <Lead>
        CSV or XLSX with any column titles, in this order. You see what each row would do before anything changes. You
        can import an export again without a change.
      </Lead>
      <Cards>
        {(Object.keys(about) as FileKindName[]).map((kind, index) => (
          <KindCard key={kind} kind={kind} number={index + 1} onBegun={(id) => setSearch({ import: id })} />
        ))}
      </Cards>
    </Page>
  );
}

function KindCard({ kind, number, onBegun }: { kind: FileKindName; number: number; onBegun: (id: string) => void }) {
  const chooser = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const { title, says } = about[kind];
  const send = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setError(null);
    try {
      const path = `${IMPORTS_PATH}?kind=${kind}&name=${encodeURIComponent(file.name)}`;
      onBegun((await upload<ImportJob>(path, file, { method: 'POST', most: LARGEST_FILE })).id);
    } catch (fault) {
      setError(fault);
    } finally {
      setBusy(false);
    }
  };
  const { over, drop } = useFileDrop((file) => void send(file));
  return (
    <Card $over={over} {...drop}>
      <h2>
        <Muted>{number}</Muted> {title}
      </h2>
      <p>{says}</p>
      <Faint>
        Columns:{' '}
        {fileKinds[kind].columns.map((column) => `${column.title}${column.required ? ' (needed)' : ''}`).join(', ')}
        {fileKinds[kind].hasFields && ', Field: anything'}
      </Faint>
      <Row $gap={6} $wrap>
        <Button busy={busy} onPress={() => chooser.current?.click()}>
          <FileUp size={16} aria-hidden /> Choose a file of {title.toLowerCase()}…
        </Button>
        <FileLink href={`${EXPORTS_PATH}?kind=${kind}&format=csv`} download>
          <Download size={15} aria-hidden /> CSV
        </FileLink>
        <FileLink href={`${EXPORTS_PATH}?kind=${kind}&format=xlsx`} download>
          <Download size={15} aria-hidden /> XLSX
        </FileLink>
      </Row>
      <ProblemBox error={error} />
      <FileInput
        chooser={chooser}
        accept=".csv,.txt,.tsv,.xlsx"
        label={`File of ${title.toLowerCase()}`}
        onFile={(file) => void send(file)}
      />
    </Card>
  );
}
