import { useSearchParams } from 'react-router';
import { problemOf, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { ItemPicker } from '../ui/ItemPicker.tsx';
import { AnswerPane, Ask, AskAnswer } from '../ui/layout.ts';
import { Answer, EmptyState } from '../ui/States.tsx';
import { H2 } from '../ui/space.ts';

import { ApartForm } from './ApartForm.tsx';
import { ApartList, useApartList } from './ApartList.tsx';
import { OnHand } from './OnHand.tsx';
import { readable } from './reckonApart.ts';

/** What is kept to be taken apart with the next. */
function Kept() {
  const [list, setList] = useApartList();
  return <ApartList list={list} onChange={setList} />;
}

/** Units from stock back into parts: what is good, damaged or missing, and where the value goes. */
export function TakeApartPage() {
  const [search, setSearch] = useSearchParams();
  const itemId = Number(search.get('item')) || null;
  const item = useQuestion('item', { params: { id: itemId ?? 0 } }, { enabled: itemId !== null });
  const unit = {
    lot: search.get('lot') ?? undefined,
    serials: readable(search.get('serials')),
    buildId: Number(search.get('build')) || undefined,
    pieceId: Number(search.get('piece')) || undefined,
  };
  const plan = useQuestion(
    'apartPlan',
    { params: { id: itemId ?? 0 }, query: unit },
    { enabled: itemId !== null, keep: true },
  );
  const picker = (
    <ItemPicker
      label="Which product?"
      chosen={item.data ? `${item.data.name} · ${item.data.code}` : ''}
      source="made"
      autoFocus={itemId === null}
      onPick={(picked) => setSearch({ item: String(picked.id) })}
    />
  );
  const problem = problemOf(plan.error);
  const isUnmade = problem?.code === 'no-definition-in-use';
  if (itemId === null || isUnmade) {
    return (
      <AskAnswer>
        <Ask>
          <H2 $bottom={10}>What do you take apart?</H2>
          {picker}
          <Kept />
        </Ask>
        <AnswerPane>
          {isUnmade ? (
            <EmptyState title={problem.title} action={<LinkButton to="/define">See the bills of materials</LinkButton>}>
              {problem.detail} Or choose another product.
            </EmptyState>
          ) : (
            <OnHand />
          )}
        </AnswerPane>
      </AskAnswer>
    );
  }
  return (
    <Answer of={item}>
      {(product) => (
        <Answer of={plan}>
          {(data) => (
            <ApartForm
              isOther={plan.isPlaceholderData}
              key={`${data.itemId}:${data.revisionId}`}
              item={product}
              plan={data}
              picker={picker}
            />
          )}
        </Answer>
      )}
    </Answer>
  );
}
