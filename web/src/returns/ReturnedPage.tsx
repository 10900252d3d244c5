import { Link } from 'react-router';
import { useQuestion } from '../api/client.ts';
import { useFormat } from '../ui/format.ts';
import { AnswerBody, AnswerPane } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { Para, Section } from '../ui/space.ts';
import { Tile } from '../ui/Tile.tsx';
import { Faint, Lead, Row } from '../ui/text.ts';
import { Pile } from './Pile.tsx';
import { TakeBackForm } from './TakeBackForm.tsx';
import { pileWords } from './words.ts';

/** What came back and waits for somebody to decide, and taking more of it in. */
export function ReturnedPage() {
  const format = useFormat();
  const waiting = useQuestion('waitingReturns', {});
  return (
    <AnswerPane>
      <AnswerBody>
        <Answer of={waiting}>
          {({ returns, announced }) => (
            <Pile returns={returns} keptAs="pile">
              <div>
                <h1>{pileWords(returns)}</h1>
                <Lead>
                  {returns.length === 0
                    ? 'Returned goods are received at the value they left with. They stay on hold until you decide what to do with them.'
                    : 'Returned goods keep the value they left with. Kits are unpacked exactly as shipped.'}
                </Lead>
              </div>
              <TakeBackForm />
              {announced.length > 0 && (
                <Section>
                  <h2>Announced</h2>
                  {announced.map((one) => (
                    <Row key={one.id} $gap={10} $top={6}>
                      <Tile code={one.code} size={28} />
                      <span>
                        <Link to={`/take-apart/returns/${one.id}`}>{one.number}</Link> · {one.customer} · {one.what}
                        <br />
                        <Faint>
                          {one.reasons}
                          {one.expectedOn && ` · expected ${format.day(one.expectedOn)}`}
                        </Faint>
                      </span>
                    </Row>
                  ))}
                </Section>
              )}
              {returns.length === 0 && announced.length === 0 && (
                <Para>
                  <Link to="/take-apart/stock">Take stock apart</Link> instead.
                </Para>
              )}
            </Pile>
          )}
        </Answer>
      </AnswerBody>
    </AnswerPane>
  );
}
