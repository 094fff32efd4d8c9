'use client';
/** One of the walks: who walks, through which policy, the page, and what was decided about it. */
import { describeFacts, keyOfStandIn, nameOf, type StandIn, standInFacts, vocabularyOf } from '@/core';
import type { DeskData, WalkReport, WalkScene } from '@/services';
import { Button, Choice, Pick } from '@/ui';
import { OutcomeMark } from '../marks';
import type { Answer } from '../service';
import { WalkFrame } from './walk-frame';

export interface PaneWalk {
  readonly token: string;
  readonly standIn: StandIn;
  readonly side: 'draft' | 'live';
  readonly scene: WalkScene;
}

interface WalkPaneProps {
  readonly data: DeskData;
  readonly walk: PaneWalk;
  readonly at: string;
  readonly report: Answer<WalkReport> | null;
  /** How many things stand on this page and not on the other; null when there is no other. */
  readonly apart: number | null;
  readonly onWalk: (change: Partial<PaneWalk>) => void;
  readonly onGo: (address: string) => void;
  readonly onPage: (page: Window | null) => void;
  readonly onClose: (() => void) | null;
}

export function WalkPane(props: WalkPaneProps) {
  const { data, walk, at, report, apart, onWalk, onGo, onPage, onClose } = props;
  const { standIn, side, token } = walk;
  const there = data.standIns.some((one) => keyOfStandIn(one) === keyOfStandIn(standIn));
  const others = there ? data.standIns : [standIn, ...data.standIns];
  return (
    <section
      aria-label={`The walk as ${nameOf(standIn)}`}
      className="flex min-h-0 min-w-0 flex-1 flex-col border-iron not-last:border-r"
    >
      <div className="flex min-h-11 items-center gap-3 border-thin border-b px-4 py-1">
        <Pick
          label="Who walks"
          value={keyOfStandIn(standIn)}
          options={others.map((one) => ({ value: keyOfStandIn(one), label: nameOf(one) }))}
          onPick={(key) => {
            const next = others.find((one) => keyOfStandIn(one) === key);
            if (next) onWalk({ standIn: next });
          }}
          className="max-w-52 font-semibold"
        />
        <span className="note min-w-0 truncate">
          {describeFacts(
            standIn,
            standInFacts(standIn),
            vocabularyOf(data.names, data[side].policy),
            data.request.today,
          )}
        </span>
        <span className="ml-auto flex items-center gap-1.5">
          <Choice
            label="Policy walked through"
            value={side}
            options={[
              { value: 'live', label: 'Live' },
              { value: 'draft', label: 'Draft' },
            ]}
            onChoose={(through) => onWalk({ side: through })}
          />
          {onClose && (
            <Button weight="quiet" onClick={onClose} title={`Walk on without ${nameOf(standIn)}`}>
              Leave
            </Button>
          )}
        </span>
      </div>
      <WalkFrame
        key={token}
        token={token}
        title={`The site as ${nameOf(standIn)} sees it`}
        at={at}
        onGo={onGo}
        onPage={onPage}
      />
      <p
        data-testid="walk-line"
        className="flex min-h-11 items-center gap-2.5 border-iron border-t bg-sunk px-4 py-1.5 text-[0.8125rem]"
      >
        {report === null ? (
          'Looking …'
        ) : report.ok ? (
          <>
            {report.value.page && <OutcomeMark outcome={report.value.page.outcome} />}
            <span className="min-w-0 flex-1">{lineOf(report.value, at)}</span>
          </>
        ) : (
          report.title
        )}
        {apart !== null && apart > 0 && (
          <strong className="whitespace-nowrap font-normal text-copper">
            {apart} {apart === 1 ? 'thing' : 'things'} only here
          </strong>
        )}
      </p>
    </section>
  );
}

const ALWAYS = ['/sign-in', '/sign-up', '/passphrase', '/search', '/reset'];

function lineOf({ page }: WalkReport, at: string): string {
  if (page) return `${page.sentence}${page.because ? `: ${page.because}` : ''}.`;
  const [path = '/'] = at.split('?');
  return ALWAYS.includes(path) ? 'This page is open to everyone, always.' : 'No page has this address.';
}
