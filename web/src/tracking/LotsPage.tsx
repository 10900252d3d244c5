import { useQuestion } from '../api/client.ts';
import { daysUntil, SOON_DAYS } from '../lines/BestBefore.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { Page } from '../ui/layout.ts';
import { Part } from '../ui/space.ts';
import { Lead, Row } from '../ui/text.ts';
import { today } from '../ui/today.ts';
import { useAddress } from '../ui/useAddress.ts';
import { LotTable } from './LotTables.tsx';

const inDays = (days: number) => {
  const day = new Date(`${today()}T12:00:00`);
  day.setDate(day.getDate() + days);
  return day.toISOString().slice(0, 10);
};

/** Lots in the order in which they expire: what has to be used soon, what is past its day, what is held. */
export function LotsPage() {
  const [show, setShow] = useAddress('show');
  const [q, setQ] = useAddress('q');
  const soon = useQuestion('lots', { query: { until: inDays(SOON_DAYS), limit: 500 } }).data?.rows ?? [];
  const past = soon.filter((row) => row.bestBefore !== null && daysUntil(row.bestBefore) < 0).length;
  const near = soon.length - past;
  const conclusion =
    past + near === 0
      ? `No lot expires within ${SOON_DAYS} days.`
      : [
          past > 0 && `${count(past, 'lot')} ${past === 1 ? 'is' : 'are'} past ${past === 1 ? 'its' : 'their'} day`,
          near > 0 && `${count(near, 'lot')} expire${near === 1 ? 's' : ''} within ${SOON_DAYS} days`,
        ]
          .filter(Boolean)
          .join(', ')
          .concat('.');
  const until = { soon: inDays(SOON_DAYS), quarter: inDays(90), past: inDays(-1) }[show];
  return (
    <Page $white>
      <h1>{conclusion}</h1>
      <Lead>A lot past its day is held by itself; an owner may release it. What is held is not free.</Lead>
      <Row $wrap $gap={10} $top={12} $bottom={4} $end>
        <Part $width={230}>
          <Field label="Find" hideLabel placeholder="Lot or item" value={q} onChange={setQ} />
        </Part>
        <Part $width={230}>
          <Choice
            label="Which lots"
            hideLabel
            value={show}
            onChange={setShow}
            options={[
              ['', 'All lots in stock'],
              ['soon', `Expire within ${SOON_DAYS} days`],
              ['quarter', 'Expire within 90 days'],
              ['past', 'Past their day'],
              ['held', 'Held'],
            ]}
          />
        </Part>
      </Row>
      <LotTable q={q} {...(until ? { until } : {})} {...(show === 'held' ? { held: true } : {})} />
    </Page>
  );
}
