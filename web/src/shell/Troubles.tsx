import styled from 'styled-components';
import { problemOf } from '../api/client.ts';
import { usePartMissing } from '../api/part.ts';
import { useSlow } from '../api/slow.ts';
import { useUnsaid } from '../api/unsaid.ts';
import { Button } from '../ui/Button.tsx';

const Line = styled.div`
  background: var(--coming-wash); color: var(--coming-ink); padding: 6px 18px; font-size: 13px; display: flex; gap: 4px 12px; align-items: center; flex-wrap: wrap;
  @media print { display: none; }
`;

/** What a screen offers to choose from, where there is nothing to choose while it is missing. */
const CHOICES: Readonly<Record<string, string>> = {
  customers: 'customers',
  stores: 'stores and bins',
  suppliers: 'suppliers',
  reasons: 'reasons',
  rates: 'labour rates',
  units: 'units of measure',
  workers: 'people',
  people: 'people',
  lots: 'lots',
  serials: 'serial numbers',
  definitions: 'bills of materials',
};

/** What is wrong between this page and the server, over the page, with the way out; each line is there only as long as it is so. */
export function Troubles({ heard }: { heard: boolean }) {
  const part = usePartMissing();
  const unsaid = useUnsaid();
  const slow = useSlow();
  const missing = [...new Set((unsaid?.names ?? []).map((name) => CHOICES[name] ?? 'some figures'))].sort();
  return (
    <>
      {part === 'waiting' && <Line role="status">This screen can’t be loaded right now. Trying again…</Line>}
      {part === 'gone' && (
        <Line role="status">
          Part of this screen can’t be loaded. What you typed is still here.
          <Button onPress={() => window.location.reload()}>Reload the page</Button>
        </Line>
      )}
      {!heard && <Line role="status">Connection lost; figures may be old. Trying to reconnect…</Line>}
      {unsaid && (
        <Line role="status">
          Couldn’t load {new Intl.ListFormat('en').format(missing)}. {problemOf(unsaid.error)?.detail}
          <Button onPress={unsaid.again}>Try again</Button>
        </Line>
      )}
      {slow.length > 0 && (
        <Line role="status">
          The server hasn’t answered yet. Sending again is safe: it is only done once.
          <Button onPress={() => slow.forEach((again) => void again())}>Send again</Button>
        </Line>
      )}
    </>
  );
}
