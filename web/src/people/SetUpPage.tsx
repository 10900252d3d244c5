import { SETUP_STEPS } from '@yosegi/core/people';
import { type ReactNode, useContext, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useCommand, usePages, useQuestion } from '../api/client.ts';
import { NewStore, StoreForm } from '../places/index.ts';
import { Button, LinkButton } from '../ui/Button.tsx';
import { ForOwner } from '../ui/ForOwner.tsx';
import { CompanyContext, count } from '../ui/format.ts';
import { Scroll } from '../ui/layout.ts';
import { Answer } from '../ui/States.tsx';
import { H2, Para } from '../ui/space.ts';
import { Lead, Push, Row } from '../ui/text.ts';
import { unsaved, useSettled } from '../ui/unsaved.ts';
import { CompanyForm } from './CompanyForm.tsx';
import { Card } from './CompanyPage.tsx';
import { People } from './People.tsx';

const Page = styled.div`max-width: 860px; margin: 0 auto; padding: 22px 24px 60px; display: grid; gap: 16px;`;
const Steps = styled.ol`
  display: flex; gap: 3px; list-style: none; padding: 0; margin: 0; flex-wrap: wrap;
  button { border: 0; background: var(--birch); padding: 8px 16px; min-height: 36px; font: 600 13.5px var(--text); color: var(--ink-2); cursor: pointer; }
  button[aria-current] { background: var(--honey); color: var(--ink); } button[data-done] { color: var(--ink); }
`;

const steps: readonly {
  readonly name: string;
  readonly title: string;
  readonly why: string;
  readonly body: ReactNode;
}[] = [
  {
    name: 'Company',
    title: 'Who are you?',
    why: 'Your papers carry the name and the address. Currency and language decide how amounts and dates are written.',
    body: <CompanyForm />,
  },
  {
    name: 'People',
    title: 'Who works here?',
    why: 'Everything done here shows who did it. An owner can do everything; a builder builds, picks and counts.',
    body: <People />,
  },
  {
    name: 'Places',
    title: 'Where do you keep things?',
    why: 'A store has bins in picking order, and a bench for picked parts.',
    body: <Places />,
  },
  {
    name: 'Items',
    title: 'What do you buy and make?',
    why: 'Import a spreadsheet, or enter the first few by hand. You can add more at any time.',
    body: <Items />,
  },
  {
    name: 'First product',
    title: 'What is your first product made of?',
    why: 'A bill of materials lists what goes into it. You see at once what it costs and how many you can make.',
    body: <FirstProduct />,
  },
];

/** The set-up of a new company in five short steps, each of which can be left and come back to. */
export function SetUpPage() {
  return (
    <ForOwner right="set-up" to="set up the company">
      <SetUp />
    </ForOwner>
  );
}

function SetUp() {
  const company = useContext(CompanyContext);
  const go = useNavigate();
  const [search, setSearch] = useSearchParams();
  const keep = useCommand('setUp');
  const now = Number(search.get('step')) || company.setupStep || 1;
  const step = steps[now - 1] ?? steps[0];
  const to = (next: number) => {
    setSearch({ step: String(next) });
    if (company.setupStep !== null && next > company.setupStep) keep.mutate({ body: { step: next } });
  };
  /** Where to go once what was typed here is saved. */
  const [leaving, setLeaving] = useState<(() => void) | null>(null);
  const leave = (go: () => void) => {
    const typed = unsaved();
    if (typed.length === 0) return go();
    setLeaving(() => go);
    for (const one of typed) one.save();
  };
  useSettled(() => {
    if (leaving === null || unsaved().length > 0) return;
    setLeaving(null);
    leaving();
  });
  const end = () => {
    keep.mutate({ body: { step: null } });
    void go('/today');
  };
  return (
    <Scroll>
      <Page>
        <Steps aria-label="Steps">
          {steps.map(({ name }, index) => (
            <li key={name}>
              <button
                type="button"
                onClick={() => leave(() => to(index + 1))}
                {...(index + 1 === now ? { 'aria-current': 'step' } : {})}
                {...(index + 1 < (company.setupStep ?? SETUP_STEPS + 1) ? { 'data-done': true } : {})}
              >
                {index + 1}. {name}
              </button>
            </li>
          ))}
        </Steps>
        <div>
          <h1>{step?.title}</h1>
          <Lead>{step?.why}</Lead>
        </div>
        {/* Whoever types on has not left yet. */}
        <Card key={now} onInput={() => setLeaving(null)}>
          {step?.body}
        </Card>
        <Row $wrap>
          {now > 1 && <Button onPress={() => leave(() => to(now - 1))}>Back</Button>}
          <Push />
          <LinkButton look="ghost" to="/today">
            Finish later
          </LinkButton>
          {now < SETUP_STEPS ? (
            <Button look="go" onPress={() => leave(() => to(now + 1))}>
              Next: {steps[now]?.name}
            </Button>
          ) : (
            <Button look="go" onPress={() => leave(end)}>
              Done
            </Button>
          )}
        </Row>
      </Page>
    </Scroll>
  );
}

function Places() {
  const stores = useQuestion('stores', {});
  return (
    <Answer of={stores}>
      {(rows) => (
        <>
          {rows.map((store) => (
            <StoreForm key={store.id} store={store} />
          ))}
          <H2 $top={rows.length > 0 ? 22 : 0}>{rows.length > 0 ? 'Another store' : 'Your first store'}</H2>
          <NewStore />
        </>
      )}
    </Answer>
  );
}

function Items() {
  const counts = useQuestion('itemCounts', {});
  return (
    <Answer of={counts}>
      {({ all }) => (
        <>
          <Para $bottom={12}>{all === 0 ? 'There are no items yet.' : `${count(all, 'item')} so far.`}</Para>
          <Row $wrap>
            <LinkButton look="go" to="/stock/in-out">
              Import a file
            </LinkButton>
            <LinkButton to="/stock/items?new=1">Enter one by hand</LinkButton>
            {all > 0 && <LinkButton to="/stock/items">See the items</LinkButton>}
          </Row>
        </>
      )}
    </Answer>
  );
}

function FirstProduct() {
  const pages = usePages('definitions', { limit: 10 });
  return (
    <Answer of={pages}>
      {(data) => {
        const [first] = data.pages.flatMap((page) => page.rows);
        return first ? (
          <Row $wrap>
            <span>{first.name} is started.</span>
            <LinkButton to={`/define/${first.id}`}>Continue</LinkButton>
          </Row>
        ) : (
          <LinkButton look="go" to="/define/new">
            New bill of materials
          </LinkButton>
        );
      }}
    </Answer>
  );
}
