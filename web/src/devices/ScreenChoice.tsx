import styled from 'styled-components';
import type { Screen } from '../scan/screens.ts';
import { Faint, Lead, Muted } from '../ui/text.ts';

const Other = styled.button`
  display: flex; width: 100%; gap: 10px; text-align: left; padding: 10px 12px; border: 1px solid var(--line); border-radius: 3px; background: var(--sheet);
  cursor: pointer; color: var(--ink); margin-top: 8px; &[aria-pressed='true'] { border-color: var(--walnut); box-shadow: inset 5px 0 var(--honey); }
`;

interface Props {
  readonly title: string;
  readonly hint: string;
  readonly screens: readonly Screen[];
  readonly target: Screen | undefined;
  readonly onChoose: (id: string) => void;
}

/** Which open screen of this browser a stand-in sends to. */
export function ScreenChoice({ title, hint, screens, target, onChoose }: Props) {
  return (
    <>
      <h2>{title}</h2>
      <Lead>{hint}</Lead>
      {screens.length === 0 && <Muted>No other screen is open in this browser.</Muted>}
      {screens.map((screen) => (
        <Other
          key={screen.id}
          type="button"
          aria-pressed={screen.id === target?.id}
          onClick={() => onChoose(screen.id)}
        >
          <span>
            <b>{screen.title}</b>
            <br />
            <Faint>{screen.path}</Faint>
          </span>
        </Other>
      ))}
    </>
  );
}
