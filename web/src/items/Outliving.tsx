import type { ItemDetail } from '@yosegi/contract';
import { useNavigate } from 'react-router';
import { useCommand } from '../api/client.ts';
import { AskFirst } from '../ui/AskFirst.tsx';
import { Button, LinkButton } from '../ui/Button.tsx';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Row } from '../ui/text.ts';

/** An item that is not used any more: archived when it has a history, deleted when it has none, and back again. */
export function Outliving({ item }: { item: ItemDetail }) {
  const go = useNavigate();
  const notify = useNotify();
  const archive = useCommand('archiveItem', (_, { body }) =>
    notify({ text: body.archived ? `${item.name} is archived.` : `${item.name} is back in use.` }),
  );
  const remove = useCommand('deleteItem', () => {
    notify({ text: `${item.name} deleted. Nothing used it.` });
    void go('/stock/items');
  });
  const set = (archived: boolean) =>
    archive.mutate({ params: { id: item.id }, body: { archived, version: item.version } });
  return (
    <>
      <Row $wrap $top={16} $bottom={8}>
        {item.archived ? (
          <Button busy={archive.isPending} onPress={() => set(false)}>
            Bring item back
          </Button>
        ) : item.hasHistory ? (
          <Button look="ghost" busy={archive.isPending} onPress={() => set(true)}>
            Archive
          </Button>
        ) : (
          <AskFirst
            label="Delete…"
            look="ghost"
            title={`Delete ${item.name}?`}
            action="Delete item"
            keep="Keep the item"
            busy={remove.isPending}
            onDo={() => remove.mutate({ params: { id: item.id } })}
          >
            No orders or builds use this item. Its suppliers and prices are deleted too.
          </AskFirst>
        )}
      </Row>
      <ProblemBox
        error={archive.error ?? remove.error}
        ways={
          archive.error && <LinkButton to={`/define/replace?part=${item.id}`}>Replace it where it is used</LinkButton>
        }
      />
    </>
  );
}
