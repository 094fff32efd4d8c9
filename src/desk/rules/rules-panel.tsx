'use client';
/** What is set for the site as a whole: behind sign-in or not, turn-aways with names, landing rules, defaults. */
import type { ReactNode } from 'react';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { Defaults } from './defaults';
import { Landings } from './landings';
import { LeakCheck } from './leak-check';
import { NamedTurnAways } from './named-turn-aways';
import { WholeSite } from './whole-site';

export function RulesPanel() {
  const { setBench, draft } = useDesk();
  const ids = new Set<string>([...draft.policy.turnAways, ...draft.policy.landings].map(({ id }) => id));
  const problems =
    draft.saving.kind === 'refused'
      ? draft.saving.problems.filter(({ gate }) => gate === null || ids.has(gate))
      : [];
  return (
    <Panel
      title="For the whole site"
      note="All of it is in the draft until it is put live"
      onClose={() => setBench({ kind: 'gates' })}
    >
      {problems.map(({ message }) => (
        <p key={message} role="alert" className="mb-3 border-alarm border-l-3 pl-3 text-alarm">
          {message}
        </p>
      ))}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-7">
        <Part title="Behind sign-in">
          <WholeSite />
        </Part>
        <Part title="Turn-aways with a name">
          <NamedTurnAways />
        </Part>
        <Part title="Where people arrive">
          <Landings />
        </Part>
        <Part title="What new items start with">
          <Defaults />
        </Part>
        <Part title="Does anything leak?">
          <LeakCheck />
        </Part>
      </div>
    </Panel>
  );
}

const Part = ({ title, children }: { readonly title: string; readonly children: ReactNode }) => (
  <section aria-label={title} className="grid grid-cols-[minmax(0,1fr)] gap-2.5">
    <h3>{title}</h3>
    {children}
  </section>
);
