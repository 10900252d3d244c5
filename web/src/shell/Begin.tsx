import { useContext } from 'react';
import { Navigate } from 'react-router';
import { useCan } from '../api/person.ts';
import { CompanyContext } from '../ui/format.ts';

/** Where one lands: on Today, or in the set-up of a company that has just begun. */
export function Begin() {
  const { setupStep } = useContext(CompanyContext);
  const maySetUp = useCan('set-up');
  return <Navigate to={setupStep !== null && maySetUp ? '/set-up' : '/today'} replace />;
}
