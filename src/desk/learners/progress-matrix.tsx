'use client';
/** Learners and activities as a matrix. Only the lines in view are drawn, each as a few paths. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { clsx } from 'clsx';
import { memo, useRef } from 'react';
import { keysOf, PROGRESS, type Progress, statesIn } from '@/core';
import type { CourseProgress, ProgressOfLearner } from '@/services';
import { doneIn, type Order } from './order';
import { COLOURS, MARKS } from './progress-marks';
import { StopsChart } from './stops-chart';

const CELL = 34;
const LINE = 30;
const NAMES = 248;

interface MatrixProps {
  readonly progress: CourseProgress;
  /** Those that are shown, in their order. */
  readonly learners: readonly ProgressOfLearner[];
  readonly chosen: string | null;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  readonly onChoose: (person: string) => void;
}

export function ProgressMatrix({ progress, learners, chosen, order, onOrder, onChoose }: MatrixProps) {
  const scroll = useRef<HTMLDivElement>(null);
  const lines = useVirtualizer({
    count: learners.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => LINE,
    overscan: 12,
  });
  const { activities } = progress;
  const width = NAMES + CELL * activities.length + 120;
  return (
    <div ref={scroll} className="min-h-0 flex-1 overflow-auto">
      <div style={{ width }}>
        <div className="sticky top-0 z-20 flex items-end border-iron border-b bg-paper">
          <div
            className="sticky left-0 z-10 flex items-end gap-3 self-stretch bg-paper pb-1.5 pl-5"
            style={{ width: NAMES }}
          >
            {(['name', 'enrolled', 'done'] as const).map((one) => (
              <OrderButton key={one} label={one} on={order === one} onClick={() => onOrder(one)} />
            ))}
          </div>
          <div>
            <div className="flex h-36">
              {activities.map(({ id, title, unit }, at) => (
                <button
                  key={id}
                  type="button"
                  title={`${unit}: ${title}. Put in order by it.`}
                  aria-label={`Put in order by ${title}`}
                  aria-pressed={order === at}
                  onClick={() => onOrder(at)}
                  className={clsx(
                    'relative h-full text-left hover:text-copper',
                    order === at && 'font-semibold text-copper',
                  )}
                  style={{ width: CELL }}
                >
                  <span className="pointer-events-none absolute bottom-1 left-1/2 max-w-38 origin-bottom-left -rotate-60 truncate whitespace-nowrap text-[0.8125rem]">
                    {title}
                  </span>
                </button>
              ))}
            </div>
            <StopsChart progress={progress} cell={CELL} />
          </div>
        </div>
        <ul aria-label="Learners" className="relative" style={{ height: lines.getTotalSize() }}>
          {lines.getVirtualItems().map(({ index, start }) => {
            const learner = learners[index];
            return (
              learner && (
                <li key={learner.person} className="absolute left-0 flex" style={{ top: start, width }}>
                  <Line learner={learner} chosen={learner.person === chosen} onChoose={onChoose} />
                </li>
              )
            );
          })}
        </ul>
      </div>
    </div>
  );
}

const OrderButton = ({
  label,
  on,
  onClick,
}: {
  readonly label: string;
  readonly on: boolean;
  readonly onClick: () => void;
}) => (
  <button
    type="button"
    aria-pressed={on}
    onClick={onClick}
    className={clsx('hover:text-copper', on ? 'font-semibold' : 'text-quiet')}
  >
    {label}
  </button>
);

interface LineProps {
  readonly learner: ProgressOfLearner;
  readonly chosen: boolean;
  readonly onChoose: (person: string) => void;
}

const Line = memo(function Line({ learner, chosen, onChoose }: LineProps) {
  const { person, name, enrolled, scores } = learner;
  const states = statesIn(learner.states);
  const done = doneIn(learner);
  return (
    <>
      <button
        type="button"
        aria-pressed={chosen}
        onClick={() => onChoose(person)}
        title={enrolled ? `Enrolled ${enrolled.on}` : 'Not enrolled'}
        className={clsx(
          'sticky left-0 z-10 flex items-center gap-2 border-thin border-b pr-3 pl-5 text-left hover:text-copper',
          chosen ? 'bg-wash font-semibold' : 'bg-paper',
        )}
        style={{ width: NAMES, height: LINE }}
      >
        <span className="min-w-0 flex-1 truncate">{name}</span>
        <span className="text-quiet text-xs tabular-nums">
          {done} of {states.length}
        </span>
      </button>
      <svg
        width={CELL * states.length}
        height={LINE}
        aria-hidden="true"
        className={clsx('border-thin border-b', chosen && 'bg-wash')}
        onClick={() => onChoose(person)}
      >
        {keysOf(PROGRESS).map((state) => (
          <path key={state} d={pathOf(state, states, scores)} fill={COLOURS[state]} fillRule="evenodd" />
        ))}
        {Object.entries(scores).map(([at, score]) => (
          <text
            key={at}
            x={Number(at) * CELL + CELL / 2}
            y={LINE / 2 + 4}
            textAnchor="middle"
            fontSize={11.5}
            fontWeight={600}
            fill={COLOURS.done}
          >
            {Math.round(score)}
          </text>
        ))}
      </svg>
    </>
  );
});

/** All marks of one state of a line; where there is a score, that stands instead. */
const pathOf = (
  state: Progress,
  states: readonly Progress[],
  scores: Readonly<Record<number, number>>,
): string =>
  states
    .map((one, at) =>
      one === state && scores[at] === undefined ? MARKS[state](at * CELL + CELL / 2, LINE / 2) : '',
    )
    .join('');
