import { EMPTY_SCALE, MOST_KILOS, netOf, type OnScale, tared } from '@yosegi/core/devices';
import { formatDecimal, parseQuantity, type Quantity } from '@yosegi/core/number';
import { useState } from 'react';
import styled from 'styled-components';
import { useScreens } from '../scan/screens.ts';
import { Button } from '../ui/Button.tsx';
import { Field } from '../ui/Field.tsx';
import { useFormat } from '../ui/format.ts';
import { Ask, AskAnswer } from '../ui/layout.ts';
import { Part } from '../ui/space.ts';
import { Lead, Row } from '../ui/text.ts';
import { useTyped, useTypedScreen } from '../ui/useTypedScreen.ts';
import { ScreenChoice } from './ScreenChoice.tsx';

const Desk = styled.section`padding: 22px 26px; overflow: auto; display: grid; gap: 16px; align-content: start;`;
const Display = styled.output`
  font: 700 44px var(--text); font-variant-numeric: tabular-nums; background: var(--ebony); color: var(--on-dark); padding: 12px 22px; justify-self: start; min-width: 260px;
  text-align: right; border-radius: 3px; small { font-size: 18px; }
`;
const said = {
  field: 'Entered in the selected field.',
  screen: 'Received by the screen.',
  nowhere: 'No field is selected there. Put the cursor where the weight belongs.',
};

/**
 * Stands in for a bench scale that is wired to the desk: it sends the net weight into the focused field of another open
 * screen of this browser.
 */
export function ScalePage() {
  const format = useFormat();
  const { screens, weigh, answer } = useScreens();
  const [chosen, setChosen] = useState('');
  const target = screens.find(({ id }) => id === chosen) ?? screens[0];
  const screen = useTypedScreen('scale');
  const [typed, setTyped] = useTyped(screen, 'load', '');
  const [scale, setScale] = useState<OnScale>(EMPTY_SCALE);
  const load = readKilos(typed);
  const now: OnScale = { ...scale, load: load ?? scale.load };
  const net = formatDecimal(netOf(now));
  return (
    <AskAnswer>
      <Ask>
        <ScreenChoice
          title="Weigh into"
          hint="Open the screen in another tab or window, and put the cursor in the quantity to weigh."
          screens={screens}
          target={target}
          onChoose={setChosen}
        />
      </Ask>
      <Desk>
        <div>
          <h1>{load === null || load === 0 ? 'What’s on the scale?' : 'Ready to send.'}</h1>
          <Lead>Tare subtracts the current load, like an empty jar.</Lead>
        </div>
        <Display aria-label="Net weight">
          {format.number(net, 3)} <small>kg</small>
        </Display>
        <Row $end $wrap>
          <Part $width={190}>
            <Field
              label="Load, in kg"
              numeric
              autoFocus
              value={typed}
              onChange={setTyped}
              error={load === null && typed.trim() !== '' ? `Enter a weight up to ${MOST_KILOS} kg.` : undefined}
            />
          </Part>
          <Button onPress={() => setScale(tared(now))}>Tare</Button>
          <Button
            look="ghost"
            onPress={() => {
              setScale(EMPTY_SCALE);
              setTyped('');
            }}
          >
            Clear
          </Button>
        </Row>
        <Row>
          <Button look="go" isDisabled={load === null || !target} onPress={() => target && weigh(target.id, net)}>
            Send{target ? ` into ${target.title}` : ''}
          </Button>
          <span role="status">{answer && said[answer]}</span>
        </Row>
      </Desk>
    </AskAnswer>
  );
}

/** A weight as it is typed; null while it cannot stand on the scale. */
function readKilos(text: string): Quantity | null {
  try {
    const load = parseQuantity(text, 6);
    return load >= 0 && load <= parseQuantity(String(MOST_KILOS), 0) ? load : null;
  } catch {
    return null;
  }
}
