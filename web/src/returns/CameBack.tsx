import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { Chip } from '../ui/Chip.tsx';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { H2, Para } from '../ui/space.ts';
import { Faint } from '../ui/text.ts';
import { stateTone, stateWords } from './words.ts';

interface Props {
  /** Of an order, or of all that a customer ever had. */
  readonly of: { readonly orderId: number } | { readonly customerId: number };
  /** By what it is found when more comes back. */
  readonly called: string;
}
/** The most returns that are shown beside something else. */
const MOST = 5;

/** What came back of an order or from a customer, and the way to take more in. */
export function CameBack({ of, called }: Props) {
  const format = useFormat();
  const returns = useQuestion('returns', { query: { ...of, limit: MOST } });
  const rows = returns.data?.rows ?? [];
  const take = <Link to={`/take-apart?back=${encodeURIComponent(called)}`}>Take back goods…</Link>;
  return (
    <>
      {rows.length > 0 && <H2 $top={18}>Returns</H2>}
      {rows.map((row) => (
        <KeyValue key={row.id}>
          <span>
            <Link to={`/take-apart/returns/${row.id}`}>{row.number}</Link> <Faint>{row.what}</Faint>{' '}
            <Chip $tone={stateTone(row.state)}>{stateWords[row.state]}</Chip>
          </span>
          {row.state !== 'called-off' && (
            <Faint $oneLine>
              {format.money(row.owed)} {row.state === 'announced' ? 'to be refunded' : 'owed'}
            </Faint>
          )}
        </KeyValue>
      ))}
      <Para $top={6}>
        {take}
        {returns.data?.next && 'customerId' in of && (
          <>
            {' · '}
            <Link to={`/take-apart/returns?q=${encodeURIComponent(called)}`}>All returns</Link>
          </>
        )}
      </Para>
    </>
  );
}
