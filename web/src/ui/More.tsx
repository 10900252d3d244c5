import { Button } from './Button.tsx';

/** The way to the next page of a list; nothing at its end. */
export function More({
  of: pages,
  children = 'Show more',
}: {
  of: { hasNextPage: boolean; isFetchingNextPage: boolean; fetchNextPage: () => unknown };
  children?: string;
}) {
  if (!pages.hasNextPage) return null;
  return (
    <Button look="ghost" busy={pages.isFetchingNextPage} onPress={() => void pages.fetchNextPage()}>
      {children}
    </Button>
  );
}
