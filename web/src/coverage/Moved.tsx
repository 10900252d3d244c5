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
  if (moved.length === 0) return <p>Nobody would be whole on another day.</p>;
  return (
    <section aria-label="Who it moves">
      <h2>{count(moved.length, 'build or order', 'builds and orders')} would be whole on another day.</h2>
      <Grid $full>
        <thead>
          <tr>
            <th>For</th>
            <th>Wanted</th>
            <th>As it stands</th>
            <th>In this case</th>
          </tr>
        </thead>
        <tbody>
          {moved.slice(0, MOST).map(({ source, before, wholeOn, wantedOn }) => {
            const named = names.source(source);
            const isLate = wantedOn !== null && (wholeOn === null || wholeOn > wantedOn);
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
                  {isLate ? <Late>{whenWords(wholeOn, format)}</Late> : whenWords(wholeOn, format)}
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
  on === null ? 'no day known' : on === '' ? 'now' : format.day(on);
