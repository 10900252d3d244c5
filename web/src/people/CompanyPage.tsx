import styled from 'styled-components';
import { useCan } from '../api/person.ts';
import { Page } from '../ui/layout.ts';
import { Lead } from '../ui/text.ts';
import { CompanyForm } from './CompanyForm.tsx';
import { People } from './People.tsx';

export const Card = styled.section`
  background: var(--sheet); border: 1px solid var(--line-soft); border-left: 5px solid var(--walnut); padding: 14px 18px 18px; border-radius: 2px;
  > h2 { margin-bottom: 10px; }
`;
const Cards = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 16px; margin-top: 16px; align-items: start;
  @media (max-width: 1000px) { grid-template-columns: minmax(0, 1fr); }
`;

/** The company and its people, as set up once and changed now and then. */
export function CompanyPage() {
  const maySetUp = useCan('set-up');
  return (
    <Page>
      <h1>The company and its people</h1>
      <Lead>
        {maySetUp
          ? 'Your address for papers, your number format, and who may do what.'
          : 'Only an owner can change these.'}
      </Lead>
      {maySetUp && (
        <Cards>
          <Card>
            <h2>The company</h2>
            <CompanyForm />
          </Card>
          <Card>
            <h2>People</h2>
            <People />
          </Card>
        </Cards>
      )}
    </Page>
  );
}
