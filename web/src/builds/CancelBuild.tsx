import type { BuildDetail } from '@yosegi/contract';
import { Link } from 'react-router';
import { AskFirst } from '../ui/AskFirst.tsx';
import { count, useFormat } from '../ui/format.ts';
import { Para } from '../ui/space.ts';

interface Props {
  readonly build: BuildDetail;
  /** How many are still to be finished. */
  readonly left: string;
  readonly busy: boolean;
  readonly onDo: () => void;
}

/** Ends a build before all of it is made, once one has seen who counts on it. */
export function CancelBuild({ build, left, busy, onDo }: Props) {
  const format = useFormat();
  const isStopped = Number(build.finished) > 0;
  const finished = format.number(build.finished);
  return (
    <AskFirst
      label={isStopped ? `Stop at ${finished} finished…` : 'Cancel the build…'}
      title={isStopped ? `Stop ${build.number} at ${finished} finished?` : `Cancel ${build.number}?`}
      action={isStopped ? `Stop at ${finished} finished` : 'Cancel the build'}
      keep="Keep the build"
      busy={busy}
      onDo={onDo}
    >
      <Para>
        {isStopped && `${format.quantity(left, build.unit, build.decimals)} won’t be made. `}
        {build.state === 'on-bench'
          ? 'Parts on the bench go back to their bins. The other parts are free again.'
          : 'Its parts are free again.'}
      </Para>
      {build.orders.length > 0 && (
        <>
          <Para $top={10}>
            <b>
              {count(build.orders.length, 'order')} {build.orders.length === 1 ? 'counts' : 'count'} on it:
            </b>
          </Para>
          <ul>
            {build.orders.map((one) => (
              <li key={one.partId}>
                <Link to={`/orders/${one.orderId}`}>{one.order}</Link> for {one.customer},{' '}
                {format.quantity(one.quantity, build.unit, build.decimals)}
              </li>
            ))}
          </ul>
        </>
      )}
      <Para $top={10}>This can’t be undone.</Para>
    </AskFirst>
  );
}
