import { useQuestion } from '../api/client.ts';
import { Button } from '../ui/Button.tsx';
import { Choice } from '../ui/Choice.tsx';
import { DayField } from '../ui/DayField.tsx';
import { Field } from '../ui/Field.tsx';
import { Scroll } from '../ui/layout.ts';
import { SavedFilters } from '../ui/SavedFilters.tsx';
import { shelfOptions } from '../ui/shelves.ts';
import { Row } from '../ui/text.ts';
import { useAddress, useSearchChange } from '../ui/useAddress.ts';
import { KindHead, useKind } from './KindHead.tsx';
import { MovementTable } from './MovementTable.tsx';

/** Everything that ever moved, by text, kind, bin, person and days. */
export function MovementsPage() {
  const kind = useKind();
  const change = useSearchChange();
  const [q, setQ] = useAddress('q');
  const [binId, setBin] = useAddress('bin');
  const [personId, setPerson] = useAddress('person');
  const [from, setFrom] = useAddress('from');
  const [to, setTo] = useAddress('to');
  const people = useQuestion('people', {}).data ?? [];
  const shelves = shelfOptions(useQuestion('stores', {}).data ?? []);
  const narrowed = [q, binId, personId, from, to].some((one) => one !== '');
  const clear = () => change({ q: null, bin: null, person: null, from: null, to: null });
  return (
    <Scroll style={{ padding: '18px 24px 60px' }}>
      <KindHead
        title="Everything that moved"
        lead="The newest first. Nothing here is ever changed; a mistake is undone by a counter-document."
      />
      <Row $wrap $gap={8} style={{ margin: '10px 0', alignItems: 'end' }}>
        <div style={{ width: 230 }}>
          <Field label="Text" placeholder="Item, document or remark" value={q} onChange={setQ} />
        </div>
        <div style={{ width: 170 }}>
          <Choice label="Bin" value={binId} onChange={setBin} options={[['', 'every bin'], ...shelves]} />
        </div>
        <div style={{ width: 140 }}>
          <Choice
            label="Who"
            value={personId}
            onChange={setPerson}
            options={[['', 'everyone'], ...people.map((person) => [String(person.id), person.name] as const)]}
          />
        </div>
        <div style={{ width: 150 }}>
          <DayField label="From" value={from} onChange={setFrom} />
        </div>
        <div style={{ width: 150 }}>
          <DayField label="To" value={to} onChange={setTo} />
        </div>
        {narrowed && (
          <Button look="ghost" onPress={clear}>
            Everything again
          </Button>
        )}
        <SavedFilters list="movements" />
      </Row>
      <MovementTable
        {...(kind ? { kind } : {})}
        narrow={{
          q: q || undefined,
          binId: binId || undefined,
          personId: personId || undefined,
          from: from || undefined,
          to: to || undefined,
        }}
      />
    </Scroll>
  );
}
