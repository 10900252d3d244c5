import { Navigate, useLocation } from 'react-router';

/** Leads an address from before to what it is called now, with all that was asked there. */
export function Renamed({ from, to }: { from: string; to: string }) {
  const { pathname, search, hash } = useLocation();
  return <Navigate to={pathname.replace(from, to) + search + hash} replace />;
}

/** Leads a filter in an address from before to what it is called now, with everything else that was asked there. */
export function RenamedFilter({ from, to }: { from: string; to: string }) {
  const { pathname, search, hash } = useLocation();
  const renamed = new URLSearchParams(
    [...new URLSearchParams(search)].map(([key, value]) => [key === from ? to : key, value]),
  );
  return <Navigate to={`${pathname}?${renamed}${hash}`} replace />;
}
