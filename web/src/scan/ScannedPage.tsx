import { Navigate, useParams } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { LinkButton } from '../ui/Button.tsx';
import { Answer, EmptyState } from '../ui/States.tsx';

/** Opens what a barcode of a bench sheet means: the build or repair, at its line. */
export function ScannedPage() {
  const { code = '' } = useParams();
  const scanned = useQuestion('scanned', { query: { code } });
  return (
    <Answer of={scanned}>
      {({ buildId, repairId, lineId }) =>
        buildId === null ? (
          <EmptyState
            isPage
            title={`Nothing here is ${code}`}
            action={<LinkButton to="/build">See the builds</LinkButton>}
          >
            The barcode looks like a bench sheet’s, but no build or repair has this number.
          </EmptyState>
        ) : (
          <Navigate
            to={`${repairId === null ? `/build/${buildId}` : `/build/repairs/${repairId}`}${lineId === null ? '' : `?line=${lineId}`}`}
            replace
          />
        )
      }
    </Answer>
  );
}
