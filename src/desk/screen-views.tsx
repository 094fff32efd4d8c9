'use client';
/** What each screen and each workbench shows. */
import type { ReactNode } from 'react';
import { AudiencesScreen } from './audiences';
import type { Bench, BenchKind, BenchOf } from './benches';
import { Board, PrintScreen, StandInPanel } from './board';
import { Composer } from './composer';
import { useDesk } from './context';
import { GatesPanel } from './gates-panel';
import { HistoryScreen } from './history';
import { JournalScreen } from './journal';
import { LivePanel } from './live';
import { NamesScreen } from './names';
import { OutboxScreen } from './outbox';
import { PanelEdge } from './panel-edge';
import { PeopleScreen, PersonScreen } from './people';
import { RulesPanel } from './rules';
import type { Screen, ScreenKind, ScreenOf } from './screens';
import { SettingsScreen } from './settings';
import { SiteScreen } from './site';
import { WhyPanel } from './why';

const SCREENS: { readonly [K in ScreenKind]: (screen: ScreenOf<K>) => ReactNode } = {
  board: () => <BoardScreen />,
  print: () => <PrintScreen />,
  people: ({ text, condition }) => <PeopleScreen text={text} condition={condition} />,
  person: ({ person }) => <PersonScreen key={person ?? ''} person={person} />,
  names: () => <NamesScreen />,
  site: ({ item }) => <SiteScreen item={item} />,
  outbox: () => <OutboxScreen />,
  audiences: ({ audience }) => <AudiencesScreen audience={audience} />,
  history: ({ revision }) => <HistoryScreen revision={revision} />,
  journal: () => <JournalScreen />,
  settings: () => <SettingsScreen />,
};

const BENCHES: { readonly [K in BenchKind]: (bench: BenchOf<K>) => ReactNode } = {
  gates: () => <GatesPanel />,
  why: ({ item, standIn }) => <WhyPanel key={`${item} ${standIn}`} item={item} standIn={standIn} />,
  'stand-in': ({ standIn }) => <StandInPanel standIn={standIn} />,
  gate: ({ gate }) => <Composer key={gate} gate={gate} />,
  rules: () => <RulesPanel />,
  'put live': () => <LivePanel />,
};

export const ScreenView = ({ screen }: { readonly screen: Screen }) =>
  (SCREENS[screen.kind] as (screen: Screen) => ReactNode)(screen);

const BenchView = ({ bench }: { readonly bench: Bench }) =>
  (BENCHES[bench.kind] as (bench: Bench) => ReactNode)(bench);

function BoardScreen() {
  const { bench, panelWidth, setPanelWidth } = useDesk();
  return (
    <main
      className="grid min-h-0 flex-1"
      style={{ gridTemplateColumns: `minmax(0, 1fr) min(${panelWidth}px, 60vw)` }}
    >
      <Board />
      <aside aria-label="Workbench" className="relative min-h-0 border-iron border-l bg-raised">
        <PanelEdge width={panelWidth} onChange={setPanelWidth} />
        <BenchView bench={bench} />
      </aside>
    </main>
  );
}
