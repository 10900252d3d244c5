import { useQuery } from '@tanstack/react-query';
import { refusalOf } from '@yosegi/contract/client';
import { formatDecimal } from '@yosegi/core/number';
import { readDespatchAdvice, readOrderResponse } from '@yosegi/core/ubl';
import { overNetwork } from '../api/network.ts';
import { Button } from '../ui/Button.tsx';
import { useFormat } from '../ui/format.ts';
import { KeyValue } from '../ui/layout.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Part } from '../ui/space.ts';
import { Faint, Late, Muted } from '../ui/text.ts';

/** What a shop was told, as it reads the standard's document. */
export function Told({ path, kind }: { path: string; kind: 'response' | 'despatch' }) {
  const told = useQuery({
    queryKey: ['told', path],
    staleTime: 0,
    queryFn: async () => {
      const answer = await overNetwork(path);
      if (!answer.ok) throw await refusalOf(answer);
      return answer.text();
    },
  });
  if (told.error)
    return <ProblemBox error={told.error} ways={<Button onPress={() => void told.refetch()}>Try again</Button>} />;
  if (!told.data) return <Muted>Asking…</Muted>;
  return kind === 'response' ? <Promised xml={told.data} /> : <Despatch xml={told.data} />;
}

function Promised({ xml }: { xml: string }) {
  const format = useFormat();
  const { number, note, lines } = readOrderResponse(xml);
  return (
    <Part $top={10}>
      <Muted>
        {number} answers{note && `: ${note}`}
      </Muted>
      {lines.map((line) => (
        <KeyValue key={line.id}>
          <span>
            {formatDecimal(line.quantity)} {line.name}
          </span>
          <b>{line.promisedOn ? format.day(line.promisedOn) : <Late>no date yet</Late>}</b>
        </KeyValue>
      ))}
    </Part>
  );
}

function Despatch({ xml }: { xml: string }) {
  const format = useFormat();
  const { number, issuedOn, lines } = readDespatchAdvice(xml);
  return (
    <Part $top={10}>
      <Muted>
        {number} left {format.day(issuedOn)}
      </Muted>
      {lines.map((line) => (
        <KeyValue key={line.orderLine}>
          <span>
            {formatDecimal(line.quantity)} {line.name}
          </span>
          <Faint>{[line.lot, ...line.serials].filter(Boolean).join(', ')}</Faint>
        </KeyValue>
      ))}
    </Part>
  );
}
