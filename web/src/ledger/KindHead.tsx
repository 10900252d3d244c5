import { useSearchParams } from 'react-router';
import { Choice } from '../ui/Choice.tsx';
import { Lead, Push, Row } from '../ui/text.ts';
import { useSearchChange } from '../ui/useAddress.ts';
import { kindOptions } from './kinds.ts';

/** The kind of document that the address asks for; '' for every kind. */
export const useKind = () => useSearchParams()[0].get('kind') ?? '';

/** Heads a list of what was posted, with the choice of a kind. */
export function KindHead({ title, lead }: { title: string; lead: string }) {
  const change = useSearchChange();
  return (
    <Row style={{ marginBottom: 10 }}>
      <div>
        <h1>{title}</h1>
        <Lead>{lead}</Lead>
      </div>
      <Push />
      <div style={{ width: 200 }}>
        <Choice
          label="Kind"
          value={useKind()}
          onChange={(kind) => change({ kind: kind || null })}
          options={kindOptions}
        />
      </div>
    </Row>
  );
}
