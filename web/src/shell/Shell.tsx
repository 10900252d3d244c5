import { type Person, topics } from '@yosegi/contract';
import { writeFiguresAs } from '@yosegi/contract/problems/figures';
import { readLineCode } from '@yosegi/core/builds';
import { Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { I18nProvider } from 'react-aria-components';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import styled from 'styled-components';
import { refetch, useQuestion } from '../api/client.ts';
import { useLive } from '../api/live.ts';
import { PersonProvider } from '../api/person.ts';
import { useSignedOut } from '../api/signedOut.ts';
import { useScreenForScans } from '../scan/screens.ts';
import { listenToWedge, useOpener } from '../scan/wedge.ts';
import { CompanyProvider, count, useLocale } from '../ui/format.ts';
import { later } from '../ui/later.tsx';
import { useNotices } from '../ui/Notice.ts';
import { Answer } from '../ui/States.tsx';
import { PictureProvider, picturesByCode } from '../ui/Tile.tsx';
import { Tip } from '../ui/Tip.tsx';
import { countDaysIn, useToday } from '../ui/today.ts';
import { typedBy } from '../ui/typed.ts';
import { useNarrow } from '../ui/useNarrow.ts';
import { useShortcut } from '../ui/useShortcut.ts';
import { keepFocus } from './keepFocus.ts';
import { LeaveGuard } from './LeaveGuard.tsx';
import { Logo } from './Logo.tsx';
import { SetUpNotice } from './SetUpNotice.tsx';
import { SignIn } from './SignIn.tsx';
import { useScrolls } from './scrolls.ts';
import { submitByKeys } from './submitByKeys.ts';
import { Troubles } from './Troubles.tsx';
import { useHeadingFocus } from './useHeadingFocus.ts';
import { useTitle } from './useTitle.ts';

// Only its panes scroll, whatever has the focus: what is out of sight in them never makes the page itself longer.
const Page = styled.div`
  position: relative; overflow: clip; height: 100dvh; display: grid; grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  @media print { display: block; height: auto; overflow: visible; }
`;
const Band = styled.header`
  min-height: 64px; background: var(--ebony); display: flex; align-items: stretch; padding-left: 18px; color: var(--on-band);
  @media print { display: none; }
  @media (max-width: 1020px) { min-height: 52px; padding-left: 10px; }
  @media (max-height: 520px) { min-height: 44px; }
  @media (max-width: 700px) { &[data-hidden-on-phone] { display: none; } }
`;
const Brand = styled(NavLink)`
  display: flex; align-items: center; gap: 10px; font: 600 23px var(--display); padding-right: 18px; color: var(--on-dark); text-decoration: none;
  @media (max-width: 500px) { font-size: 0; gap: 0; padding-right: 4px; }
`;
const Stations = styled.nav`display: flex; align-items: stretch; padding-left: 8px; @media (max-width: 1020px) { align-items: center; }`;
const StationTile = styled(NavLink)`
  position: relative; min-width: 93px; padding: 0 12px; display: flex; flex-direction: column; justify-content: center; align-items: center;
  transform: skewX(-14deg); margin-right: 3px; background: var(--band); color: var(--on-band); text-decoration: none; white-space: nowrap;
  > * { transform: skewX(14deg); } b { font-weight: 600; font-size: 14px; } small { font-size: 11.5px; color: var(--on-band-faint); min-height: 17px; }
  small[data-hot] { color: var(--hot); }
  &.active { background: var(--honey); color: var(--on-honey); small, small[data-hot] { color: var(--on-honey-soft); } }
  &:focus-visible { outline-color: var(--bright); outline-offset: -4px; }
  @media (forced-colors: active) { border: 1px solid; &.active { border: 3px solid Highlight; } }
`;
const Side = styled.div`
  margin-left: auto; display: flex; align-items: center; gap: 14px; padding: 0 18px; font-size: 13px; color: var(--on-band-soft); white-space: nowrap;
  @media (max-width: 1020px) { padding: 0 10px; > button { min-height: 44px; min-width: 44px; } }
  a { color: var(--on-band-soft); text-decoration: none; padding: 6px 4px; } a.active { color: var(--bright); box-shadow: 0 2px var(--honey); }
  :focus-visible { outline-color: var(--bright); }
`;
/** The way past the band, seen once it has the focus. */
const Skip = styled.a`
  position: absolute; left: 8px; top: -60px; z-index: 50; background: var(--honey); color: var(--ink); padding: 8px 14px; border-radius: 3px; font-weight: 600;
  &:focus { top: 8px; } @media print { display: none; }
`;
const Hot = styled.small`margin-left: 5px; color: var(--hot);`;
const FindButton = styled.button`
  border: 1px solid var(--on-dark-line); border-radius: 3px; padding: 4px 9px; font-size: 12px; color: var(--on-band-soft); background: transparent; cursor: pointer;
`;
const Who = styled.button`
  width: 32px; height: 32px; border: 0; border-radius: 3px; background: var(--me); color: var(--bright); font-weight: 700; font-size: 12px; cursor: pointer;
  transform: skewX(-14deg); span { display: block; transform: skewX(14deg); }
`;
const Main = styled.main`min-height: 0; overflow: auto; outline: none;`;

// Fetched when they are first asked for; Ctrl goes down before Ctrl K does.
const palette = () => import('./Palette.tsx');
const Palette = later(palette, 'Palette');
const Notices = later(() => import('../ui/Notices.tsx'), 'Notices');
const NarrowMenu = later(() => import('./NarrowMenu.tsx'), 'NarrowMenu');
const SignInAgain = later(() => import('./SignInAgain.tsx'), 'SignInAgain');
const KeysHelp = later(() => import('./KeysHelp.tsx'), 'KeysHelp');

/** The band of stations on top, whoever works here, and the page of the address. */
export function Shell() {
  const session = useQuestion('session', {});
  return (
    <Answer of={session}>
      {({ person, company, timeZone }) => (
        <CompanyProvider value={company}>
          <I18nProvider locale={company.locale}>
            <Somebody person={person} timeZone={timeZone} />
            <Said />
          </I18nProvider>
        </CompanyProvider>
      )}
    </Answer>
  );
}

/** What was done, from the first time that anything was. */
function Said() {
  const isSaid = useNotices();
  const [wasSaid, setWasSaid] = useState(isSaid);
  if (isSaid && !wasSaid) setWasSaid(true);
  return wasSaid && <Notices />;
}

/** Whoever works here. The page stays as it is while nobody is signed in any more, and somebody signs in over it. */
function Somebody({ person, timeZone }: { person: Person | null; timeZone: string }) {
  // Before any day is drawn.
  countDaysIn(timeZone);
  writeFiguresAs(useLocale());
  const [last, setLast] = useState(person);
  if (person && person !== last) setLast(person);
  const signedOut = useSignedOut() || !person;
  if (!last) return <SignIn />;
  // Before anything of theirs is shown: what another typed in this tab is not theirs.
  typedBy(last.id);
  return (
    <PersonProvider value={last}>
      <Workplace key={last.id} initials={last.initials} name={last.name} />
      {signedOut && <SignInAgain />}
    </PersonProvider>
  );
}

function Workplace({ initials, name }: { initials: string; name: string }) {
  const heard = useLive();
  useEffect(listenToWedge, []);
  useEffect(keepFocus, []);
  useEffect(submitByKeys, []);
  const today = useQuestion('today', {});
  useRefetchedDaily();
  const [finding, setFinding] = useState(false);
  const [changingPerson, setChangingPerson] = useState(false);
  const { pathname } = useLocation();
  const go = useNavigate();
  useScreenForScans(pathname);
  useOpener((text) => {
    // On a run, the number of a build says where the goods go.
    const isOurs = readLineCode(text) !== null && !pathname.startsWith('/pick/runs/');
    if (isOurs) void go(`/scanned/${encodeURIComponent(text.trim())}`);
    return isOurs;
  });
  useTitle(pathname);
  useScrolls();
  useHeadingFocus(pathname);
  const [listingKeys, setListingKeys] = useState(false);
  useShortcut('k', () => setFinding(true), { ctrl: true });
  useShortcut('?', () => setListingKeys(true));
  useEffect(() => {
    const soon = (event: KeyboardEvent) => event.key === 'Control' && void palette().catch(() => {});
    window.addEventListener('keydown', soon);
    return () => window.removeEventListener('keydown', soon);
  }, []);
  const pictures = useQuestion('pictures', {}).data;
  const byCode = useMemo(() => picturesByCode(pictures ?? []), [pictures]);
  const counts = today.data?.counts;
  const says = (n: number | undefined, text: string) => (n === undefined ? '' : text);
  const narrow = useNarrow(1020);
  const stations: readonly Station[] = [
    { to: '/today', name: 'Today', under: says(counts?.today, `${counts?.today} to start`) },
    { to: '/define', name: 'Define', under: says(counts?.define, count(counts?.define ?? 0, 'product')) },
    {
      to: '/cover',
      name: 'Cover',
      under: says(counts?.cover, `${counts?.cover} short`),
      hot: (counts?.cover ?? 0) > 0,
    },
    { to: '/orders', name: 'Orders', under: says(counts?.orders, `${counts?.orders} can ship`) },
    { to: '/build', name: 'Build', under: says(counts?.build, `${counts?.build} on the bench`) },
    { to: '/pick', name: 'Pick', under: says(counts?.pick, `${counts?.pick} to pick`) },
    { to: '/take-apart', name: 'Take apart', under: says(counts?.cameBack, `${counts?.cameBack} came back`) },
  ];
  const doors: readonly Station[] = [
    ...stations,
    { to: '/stock', name: 'Stock', under: '' },
    { to: '/buying', name: 'Buying', under: counts?.lateOrders ? `${counts.lateOrders} late` : '' },
    { to: '/devices', name: 'Devices', under: '' },
  ];
  const here = doors.find(({ to }) => pathname.startsWith(to))?.name ?? 'Go to';
  if (changingPerson) return <SignIn onDone={() => setChangingPerson(false)} />;
  return (
    <Page>
      <div>
        <Skip href="#main">To the page</Skip>
        <Band {...(/^\/pick\/(\d|runs|orders)/.test(pathname) ? { 'data-hidden-on-phone': true } : {})}>
          <Brand to="/today" aria-label="Yosegi, to Today">
            <Logo />
            Yosegi
          </Brand>
          <Stations aria-label="Stations">
            {narrow ? (
              <NarrowMenu here={here} deeds={doors.map(({ to, name, under }) => ({ id: to, name, hint: under, to }))} />
            ) : (
              stations.map((station) => <StationLink key={station.to} {...station} />)
            )}
          </Stations>
          <Side>
            {!narrow && (
              <>
                <NavLink to="/stock">Stock</NavLink>
                <NavLink to="/buying">Buying{counts?.lateOrders ? <Hot>{counts.lateOrders} late</Hot> : null}</NavLink>
                <NavLink to="/devices">Devices</NavLink>
              </>
            )}
            <FindButton type="button" onClick={() => setFinding(true)}>
              {narrow ? 'Find' : 'Find or do…'} {!narrow && <kbd>Ctrl K</kbd>}
            </FindButton>
            <Tip text={`${name} is working. Someone else?`}>
              <Who type="button" aria-label={`${name} is working. Change`} onClick={() => setChangingPerson(true)}>
                <span>{initials}</span>
              </Who>
            </Tip>
          </Side>
        </Band>
        <SetUpNotice />
        <Troubles heard={heard} />
      </div>
      <Main id="main" tabIndex={-1}>
        <Suspense>
          <PictureProvider value={byCode}>
            <Outlet />
          </PictureProvider>
        </Suspense>
      </Main>
      <LeaveGuard />
      {finding && <Palette onClose={() => setFinding(false)} onKeys={() => setListingKeys(true)} />}
      {listingKeys && <KeysHelp onClose={() => setListingKeys(false)} />}
    </Page>
  );
}

/** What is late, and what is due, is another thing on another day. */
function useRefetchedDaily(): void {
  const day = useToday();
  const drawn = useRef(day);
  useEffect(() => {
    if (drawn.current !== day) refetch(topics);
    drawn.current = day;
  }, [day]);
}

interface Station {
  readonly to: string;
  readonly name: string;
  /** What waits there. */
  readonly under: string;
  readonly hot?: boolean;
}

function StationLink({ to, name, under, hot = false }: Station) {
  return (
    <StationTile to={to}>
      <b>{name}</b>
      <small {...(hot ? { 'data-hot': true } : {})}>{under}</small>
    </StationTile>
  );
}
