import { SETUP_STEPS } from '@yosegi/core/people';
import { useContext } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { useCan } from '../api/person.ts';
import { CompanyContext } from '../ui/format.ts';

const Strip = styled.div`
  background: var(--coming-wash); color: var(--coming-ink); padding: 6px 18px; font-size: 13.5px; display: flex; gap: 12px;
  a { color: inherit; font-weight: 600; } @media print { display: none; }
`;

/** Leads back to the set-up of a new company as long as it is not over. */
export function SetUpNotice() {
  const { setupStep } = useContext(CompanyContext);
  const { pathname } = useLocation();
  const maySetUp = useCan('set-up');
  if (setupStep === null || !maySetUp || pathname === '/set-up') return null;
  return (
    <Strip role="status">
      Setting up your company: step {setupStep} of {SETUP_STEPS}. <Link to="/set-up">Continue</Link>
    </Strip>
  );
}
