import { Scroll } from '../ui/layout.ts';
import { KindHead, useKind } from './KindHead.tsx';
import { MovementTable } from './MovementTable.tsx';

/** Everything that ever moved. */
export function MovementsPage() {
  const kind = useKind();
  return (
    <Scroll style={{ padding: '18px 24px 60px' }}>
      <KindHead
        title="Everything that moved"
        lead="The newest first. Nothing here is ever changed; a mistake is undone by a counter-document."
      />
      <MovementTable {...(kind ? { kind } : {})} />
    </Scroll>
  );
}
