'use client';
/** What each screen and each workbench shows. The board comes with the page; the rest is read when the desk answers. */
import { type ReactNode, Suspense, useDeferredValue, useEffect } from 'react';
import type { Bench, BenchKind, BenchOf } from './benches';
import { Board } from './board';
import { useDesk } from './context';
import { GatesPanel } from './gates-panel';
import { later } from './later';
import { PanelEdge } from './panel-edge';
import type { Screen, ScreenKind, ScreenOf } from './screens';

const Composer = later(async () => (await import('./composer')).Composer);
const WhyPanel = later(async () => (await import('./why')).WhyPanel);
const MakeSoPanel = later(async () => (await import('./why')).MakeSoPanel);
const LivePanel = later(async () => (await import('./live')).LivePanel);
const RulesPanel = later(async () => (await import('./rules')).RulesPanel);
const StandInPanel = later(async () => (await import('./board/stand-in-panel')).StandInPanel);
const PeopleScreen = later(async () => (await import('./people')).PeopleScreen);
const PersonScreen = later(async () => (await import('./people')).PersonScreen);
const SiteScreen = later(async () => (await import('./site')).SiteScreen);
const TakingScreen = later(async () => (await import('./taking-in')).TakingScreen);
const AreasScreen = later(async () => (await import('./areas')).AreasScreen);
const NamesScreen = later(async () => (await import('./names')).NamesScreen);
const AudiencesScreen = later(async () => (await import('./audiences')).AudiencesScreen);
const FindingsScreen = later(async () => (await import('./findings/findings-screen')).FindingsScreen);
const KindsScreen = later(async () => (await import('./findings/kinds-screen')).KindsScreen);
const AheadScreen = later(async () => (await import('./findings/ahead-screen')).AheadScreen);
const LearnersScreen = later(async () => (await import('./learners')).LearnersScreen);
const HistoryScreen = later(async () => (await import('./history')).HistoryScreen);
const JournalScreen = later(async () => (await import('./journal')).JournalScreen);
const OutboxScreen = later(async () => (await import('./outbox')).OutboxScreen);
const LettersScreen = later(async () => (await import('./letters')).LettersScreen);
const HelpScreen = later(async () => (await import('./help')).HelpScreen);
const SettingsScreen = later(async () => (await import('./settings')).SettingsScreen);
const ShopScreen = later(async () => (await import('./shop')).ShopScreen);
const SalesScreen = later(async () => (await import('./shop')).SalesScreen);
const PrintScreen = later(async () => (await import('./board/print-screen')).PrintScreen);

const SCREENS: { readonly [K in ScreenKind]: (screen: ScreenOf<K>) => ReactNode } = {
  board: () => <BoardScreen />,
  print: () => <PrintScreen />,
  people: ({ text, condition }) => <PeopleScreen text={text} condition={condition} />,
  person: ({ person }) => <PersonScreen key={person ?? ''} person={person} />,
  areas: ({ area }) => <AreasScreen area={area} />,
  names: () => <NamesScreen />,
  site: ({ item }) => <SiteScreen item={item} />,
  takeIn: () => <TakingScreen />,
  outbox: () => <OutboxScreen />,
  letters: ({ letter }) => <LettersScreen letter={letter} />,
  audiences: ({ audience }) => <AudiencesScreen audience={audience} />,
  findings: (screen) => <FindingsScreen {...screen} />,
  kinds: ({ person }) => <KindsScreen person={person} />,
  ahead: ({ person }) => <AheadScreen person={person} />,
  learners: (screen) => <LearnersScreen {...screen} />,
  shop: ({ product }) => <ShopScreen product={product} />,
  sales: ({ order }) => <SalesScreen order={order} />,
  history: ({ revision }) => <HistoryScreen revision={revision} />,
  journal: () => <JournalScreen />,
  help: ({ page }) => <HelpScreen page={page} />,
  settings: () => <SettingsScreen />,
};

const BENCHES: { readonly [K in BenchKind]: (bench: BenchOf<K>) => ReactNode } = {
  gates: () => <GatesPanel />,
  why: ({ item, standIn }) => <WhyPanel key={`${item} ${standIn}`} item={item} standIn={standIn} />,
  'make so': ({ items, standIns }) => <MakeSoPanel items={items} standIns={standIns} />,
  'stand-in': ({ standIn }) => <StandInPanel standIn={standIn} />,
  gate: ({ gate }) => <Composer key={gate} gate={gate} />,
  rules: () => <RulesPanel />,
  'put live': () => <LivePanel />,
};

/** A screen; `onShown` is called when it is there. */
export function ScreenView({ screen, onShown }: { readonly screen: Screen; readonly onShown: () => void }) {
  return (
    <Suspense key={screen.kind} fallback={<p className="note p-6">This part of the desk is on its way …</p>}>
      {(SCREENS[screen.kind] as (screen: Screen) => ReactNode)(screen)}
      <Shown then={onShown} />
    </Suspense>
  );
}

function Shown({ then }: { readonly then: () => void }) {
  useEffect(then, [then]);
  return null;
}

const BenchView = ({ bench }: { readonly bench: Bench }) =>
  (BENCHES[bench.kind] as (bench: Bench) => ReactNode)(bench);

function BoardScreen() {
  const { bench, panelWidth, setPanelWidth } = useDesk();
  // The board is there first.
  const begun = useDeferredValue(true, false);
  return (
    <main
      className="grid min-h-0 flex-1"
      style={{ gridTemplateColumns: `minmax(0, 1fr) min(${panelWidth}px, 60vw)` }}
    >
      <Board />
      <aside aria-label="Workbench" className="relative min-h-0 border-iron border-l bg-raised">
        <PanelEdge width={panelWidth} onChange={setPanelWidth} />
        <Suspense key={bench.kind}>{begun && <BenchView bench={bench} />}</Suspense>
      </aside>
    </main>
  );
}
