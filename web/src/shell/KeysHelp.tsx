import { Dialog, Heading } from 'react-aria-components';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { Button } from '../ui/Button.tsx';
import { DialogCard, Overlay } from '../ui/Modal.tsx';

const Keys = styled.dl`
  display: grid; grid-template-columns: auto 1fr; gap: 7px 16px; margin: 14px 0; align-items: baseline;
  dt { font: 600 12px var(--text); border: 1px solid var(--line); border-radius: 3px; padding: 2px 7px; background: var(--paper); justify-self: start; } dd { margin: 0; }
`;

const everywhere: readonly (readonly [string, string])[] = [
  ['Ctrl K', 'Find anything, go anywhere'],
  ['?', 'This list'],
  ['Tab', 'Next field or button'],
];
const screens: readonly (readonly [RegExp, readonly (readonly [string, string])[]])[] = [
  [
    /^\/define\/\d/,
    [
      ['Enter', 'In a quantity: on to the next line'],
      ['↑ ↓ ← →', 'From cell to cell'],
      ['Alt ↑ ↓', 'Move the line'],
      ['Alt Delete', 'Remove the line'],
      ['Alt A', 'Alternates of the line'],
      ['Alt L, C, N', 'A labour, charge or note line'],
      ['Ctrl Z, Ctrl Y', 'Undo, redo'],
      ['Ctrl V', 'Rows from a spreadsheet, in the part field'],
      ['Ctrl S', 'Save the draft'],
      ['Ctrl Enter', 'Put the draft in use'],
    ],
  ],
  [
    /^\/cover/,
    [
      ['Enter', 'In the product field: add the first match'],
      ['Ctrl Enter', 'Plan the builds'],
    ],
  ],
  [
    /^\/orders/,
    [
      ['Alt N', 'Enter an order'],
      ['Enter', 'On to the price, then to the next item'],
      ['Ctrl S', 'Save as a quote, or save the changes'],
      ['Ctrl Enter', 'Confirm, save or ship'],
    ],
  ],
  [/^\/build\/board/, [['Alt ↑ ↓ ← →', 'Move the card to someone else, or to another day']]],
  [
    /^\/pick\/(orders\/)?\d/,
    [
      ['↑ ↓', 'The quantity of the line above or below'],
      ['Ctrl Enter', 'Move the lines to the bench'],
    ],
  ],
  [
    /^\/buying\/orders\/\d+\/receive/,
    [
      ['Scan', 'Goods, then their bin'],
      ['Enter', 'On to the cost, the lot, and the next line'],
      ['F2', 'The next free serials'],
      ['Ctrl Enter', 'Receive'],
    ],
  ],
  [
    /^\/buying\/orders/,
    [
      ['Enter', 'On to the price, then to the next item'],
      ['Ctrl S', 'Save the draft'],
      ['Ctrl Enter', 'Send it'],
    ],
  ],
  [/^\/buying$/, [['Ctrl Enter', 'Draft the orders']]],
  [
    /^\/stock\/receive/,
    [
      ['Enter', 'On to the cost, then to the next item'],
      ['Ctrl Enter', 'Receive'],
    ],
  ],
  [
    /^\/stock\/(move|adjust)/,
    [
      ['Enter', 'On to the next item'],
      ['Ctrl Enter', 'Post it'],
    ],
  ],
  [
    /finish$/,
    [
      ['↑ ↓', 'The same column, a line up or down'],
      ['Ctrl Enter', 'Finish'],
    ],
  ],
  [/^\/pick$/, [['Scan', 'A printed run, a build or an order opens']]],
  [
    /^\/pick\/runs\/\d+/,
    [
      ['Scan', 'The bin, the goods, then each bench or parcel'],
      ['Enter', 'On to the next stop'],
      ['Ctrl Enter', 'Post what was picked'],
    ],
  ],
  [
    /^\/take-apart\/stock/,
    [
      ['Enter', 'On to the next part'],
      ['Ctrl Enter', 'Take apart'],
    ],
  ],
  [
    /^\/take-apart(\/returns\/\d+)?$/,
    [
      ['Scan', 'An item on the list goes to its row, anything else is searched'],
      ['Enter', 'On to the next item'],
      ['Ctrl Enter', 'Process decided items'],
    ],
  ],
];

/** `?` lists the keys of the screen. */
export function KeysHelp({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation();
  const keys = [...(screens.find(([path]) => path.test(pathname))?.[1] ?? []), ...everywhere];
  return (
    <Overlay isOpen onOpenChange={(next) => !next && onClose()} isDismissable>
      <DialogCard>
        <Dialog>
          <Heading slot="title">Keys on this screen</Heading>
          <Keys>
            {keys.map(([key, does]) => (
              <FragmentPair key={key} name={key} does={does} />
            ))}
          </Keys>
          <Button slot="close" autoFocus>
            Close
          </Button>
        </Dialog>
      </DialogCard>
    </Overlay>
  );
}

const FragmentPair = ({ name, does }: { name: string; does: string }) => (
  <>
    <dt>{name}</dt>
    <dd>{does}</dd>
  </>
);
