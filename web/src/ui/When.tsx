import { useFormat } from './format.ts';

/** A moment as it helps, with the exact one on hover. */
export function When({ at }: { at: string }) {
  const format = useFormat();
  return (
    <time dateTime={at} title={format.moment(at)}>
      {format.ago(at)}
    </time>
  );
}
