import type { DefinitionRow } from '@yosegi/contract';
import { useParams } from 'react-router';
import { usePages, useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Endless } from '../ui/Endless.tsx';
import { Finder, useSought } from '../ui/Finder.tsx';
import { useFormat } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { Strip, StripHead, Three } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { StripItem } from '../ui/StripItem.tsx';
import { VisuallyHidden } from '../ui/text.ts';
import { purposeName } from './behaviour.ts';
import { ProductsTable } from './ProductsTable.tsx';
import { revisionsOf } from './productWords.ts';

const NewDefinition = later(() => import('./NewDefinition.tsx'), 'NewDefinition');
const DefinitionSheet = later(() => import('./DefinitionSheet.tsx'), 'DefinitionSheet');

/** Bills of materials: the list, one of them, and what it is made of. */
export function DefinePage() {
  const { id } = useParams();
  return id === undefined ? <ProductsTable /> : <OneBeside id={id} />;
}

/** One of them beside the list, or a new one. */
function OneBeside({ id }: { id: string }) {
  const q = useSought();
  const pages = usePages('definitions', { q: q || undefined, limit: 100 });
  const rows = pages.data?.pages.flatMap((page) => page.rows) ?? [];
  return (
    <Three $margin={false}>
      <Strip>
        <StripHead>
          <Finder label="Find a product" placeholder="Find a product" />
          <LinkButton to="/define">All products</LinkButton>
        </StripHead>
        <Answer of={pages}>
          {() => (
            <Endless
              rows={rows}
              pages={pages}
              rowHeight={50}
              keyOf={(row) => row.id}
              label="Bills of materials"
              role="navigation"
            >
              {(row) => <OneRow row={row} />}
            </Endless>
          )}
        </Answer>
      </Strip>
      {id === 'new' ? <NewDefinition /> : <Definition key={id} id={Number(id)} />}
    </Three>
  );
}

function OneRow({ row }: { row: DefinitionRow }) {
  const format = useFormat();
  return (
    <StripItem
      to={`/define/${row.id}`}
      code={row.code}
      title={row.name}
      under={[row.code, row.purpose !== 'build' && purposeName(row.purpose), revisionsOf(row)]
        .filter(Boolean)
        .join(' · ')}
      side={
        row.canMakeNow !== null && (
          <b>
            {format.number(row.canMakeNow)}
            <VisuallyHidden> can be {row.made === 'ahead' ? 'made' : 'packed'} now</VisuallyHidden>
          </b>
        )
      }
    />
  );
}

function Definition({ id }: { id: number }) {
  const definition = useQuestion('definition', { params: { id } });
  return <Answer of={definition}>{(data) => <DefinitionSheet definition={data} />}</Answer>;
}
