import type { LotRow, SerialRow } from '@yosegi/contract';
import { useCommand } from '../api/client.ts';
import { useCan } from '../api/person.ts';
import { LabelButton } from '../devices/index.ts';
import { ReasonChoice } from '../lines/ReasonChoice.tsx';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { count } from '../ui/format.ts';
import { useNotify } from '../ui/Notice.ts';
import { ProblemBox } from '../ui/Problem.tsx';
import { Para, Part } from '../ui/space.ts';
import { Faint, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';

/** Holds what is chosen for a reason, or releases it; nothing moves. */
export function Holding({
  chosen,
  idsOf,
  onDone,
  one,
}: {
  chosen: readonly (LotRow | SerialRow)[];
  idsOf: (ids: number[]) => { lotIds: number[]; serialIds: number[] };
  onDone: () => void;
  one: string;
}) {
  const notify = useNotify();
  const mayRelease = useCan('release');
  const screen = useTypedScreen('hold');
  const [reasonId, setReason] = useTyped(screen, 'reasonId', '');
  const [remark, setRemark] = useTyped(screen, 'remark', '');
  const hold = useCommand(
    'hold',
    ({ held, stops }) => {
      const them = held === 1 ? 'it' : 'them';
      const waits = stops.slice(0, 5).map(({ kind, number }) => `${kind} ${number}`);
      const more = stops.length > 5 ? [`${stops.length - 5} more`] : [];
      notify({
        text: `${count(held, one)} held. Nothing can use ${them} until an owner releases ${them}.${
          stops.length === 0 ? '' : ` Already picked for ${[...waits, ...more].join(', ')}: put ${them} back there.`
        }`,
      });
      setReason('');
      setRemark('');
      onDone();
    },
    screen.forget,
  );
  const release = useCommand('release', ({ released }) => {
    notify({ text: `${count(released, one)} released.` });
    onDone();
  });
  const free = chosen.filter((row) => row.held === null).map((row) => row.id);
  const held = chosen.filter((row) => row.held !== null).map((row) => row.id);
  if (chosen.length === 0)
    return (
      <Para $top={8} $bottom={8}>
        <Faint>Tick a {one} to put it on hold where it is, or to release it.</Faint>
      </Para>
    );
  return (
    <>
      <Row $wrap $top={6} $bottom={10} $end>
        {one === 'serial' && (
          <LabelButton
            ask={{ serialIds: chosen.map((row) => row.id) }}
          >{`Labels of ${count(chosen.length, one)}`}</LabelButton>
        )}
        {free.length > 0 && (
          <>
            <ReasonChoice usedFor="hold" label="Reason for hold" value={reasonId} onChange={setReason} />
            <Part $width={200}>
              <Field label="Remark" hideLabel placeholder="Remark" value={remark} onChange={setRemark} />
            </Part>
            <Button
              isDisabled={reasonId === ''}
              busy={hold.isPending}
              onPress={() => hold.mutate({ body: { reasonId: Number(reasonId), remark, ...idsOf(free) } })}
            >
              Hold {count(free.length, one)}
            </Button>
          </>
        )}
        {held.length > 0 &&
          (mayRelease ? (
            <Button busy={release.isPending} onPress={() => release.mutate({ body: idsOf(held) })}>
              Release {count(held.length, one)}
            </Button>
          ) : (
            <Faint>An owner releases what is held.</Faint>
          ))}
      </Row>
      <ProblemBox error={hold.error ?? release.error} />
    </>
  );
}
