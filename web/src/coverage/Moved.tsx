import type { CaseOutcome } from '@yosegi/core/coverage';
import { Link } from 'react-router';
import { count, type Format, useFormat } from '../ui/format.ts';
import { Grid } from '../ui/layout.ts';
import { Faint, Late } from '../ui/text.ts';
import type { Names } from './useNames.ts';

const MOST = 100;

/** Who would be whole on another day. */
export function Moved({ outcome: { moved }, names }: { outcome: CaseOutcome; names: Names }) {
  const format = useFormat();
  if (moved.length === 0) return <p>No completion date would change.</p>;
  return (
    <section aria-label="Affected orders and builds">
      <h2>{count(moved.length, 'build or order', 'builds and orders')} would be complete on another day.</h2>
      <Grid $full>
        <thead>
          <tr>
            <th>For</th>
            <th>Wanted</th>
            <th>As it is now</th>
            <th>In this case</th>
          </tr>
        </thead>
        <tbody>
          {moved.slice(0, MOST).map(({ source, before, completeOn, wantedOn }) => {
            const named = names.source(source);
            const isLate = wantedOn !== null && (completeOn === null || completeOn > wantedOn);
            return (
              <tr key={`${source.kind}${source.id}`}>
                <td>
                  <Link to={source.kind === 'order' ? `/orders/${source.id}` : `/build/${source.id}`}>
                    {named?.number ?? '…'}
                  </Link>{' '}
                  <Faint>{named?.who}</Faint>
                </td>
                <td className="one-line">{wantedOn ? format.day(wantedOn) : '–'}</td>
                <td className="one-line">{whenWords(before, format)}</td>
                <td className="one-line">
                  {isLate ? <Late>{whenWords(completeOn, format)}</Late> : whenWords(completeOn, format)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Grid>
      {moved.length > MOST && <Faint>And {moved.length - MOST} more.</Faint>}
    </section>
  );
}

const whenWords = (on: string | null, format: Format) =>
  on === null ? 'no date yet' : on === '' ? 'now' : format.day(on);
