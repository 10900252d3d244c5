import { useSearchParams } from 'react-router';
import { Choice } from '../ui/Field.tsx';
import { Scroll } from '../ui/layout.ts';
import { Lead, Push, Row } from '../ui/text.ts';
import { kindOptions } from './kinds.ts';
import { MovementTable } from './MovementTable.tsx';

/** Everything that ever moved. */
export function MovementsPage() {
  const [search, setSearch] = useSearchParams();
  const kind = search.get('kind') ?? '';
  return (
    <Scroll style={{ padding: '18px 24px 60px' }}>
      <Row>
        <div>
          <h1>Everything that moved</h1>
          <Lead>The newest first. Nothing here is ever changed; a mistake is undone by a counter-document.</Lead>
        </div>
        <Push />
        <div style={{ width: 200 }}>
          <Choice
            label="Kind"
            value={kind}
            onChange={(next) => setSearch(next ? { kind: next } : {}, { replace: true })}
            options={kindOptions}
          />
        </div>
      </Row>
      <MovementTable {...(kind ? { kind } : {})} />
    </Scroll>
  );
}
