/** Where learners stop, above the columns: how many have done each activity, and how many stand at it. */
import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { counted, standsAt, statesIn } from '@/core';
import type { CourseProgress } from '@/services';

const HEIGHT = 56;

export function StopsChart({
  progress: { activities, learners },
  cell,
}: {
  readonly progress: CourseProgress;
  /** The width of a column, in pixels. */
  readonly cell: number;
}) {
  const done = activities.map(() => 0);
  const standing = activities.map(() => 0);
  for (const { states: letters } of learners) {
    const states = statesIn(letters);
    states.forEach((state, at) => {
      if (state === 'done') done[at] = (done[at] ?? 0) + 1;
    });
    const at = standsAt(states);
    if (at !== null) standing[at] = (standing[at] ?? 0) + 1;
  }
  const y = scaleLinear([0, Math.max(1, learners.length)], [0, HEIGHT - 16]);
  const most = max(standing) ?? 0;
  return (
    <svg
      width={cell * activities.length}
      height={HEIGHT}
      role="img"
      aria-label={`Where learners stop: ${activities
        .map(({ title }, at) => `${title}, done by ${done[at]}, ${standing[at]} stand there`)
        .join('; ')}`}
    >
      {activities.map(({ id, title, unit }, at) => {
        const x = at * cell;
        const [whole = 0, here = 0] = [done[at], standing[at]];
        return (
          <g key={id}>
            <title>{`${title}: done by ${counted(whole, 'learner')}; ${counted(here, 'learner')} at it`}</title>
            <rect x={x} width={cell} height={HEIGHT} fill="transparent" />
            {at > 0 && unit !== activities[at - 1]?.unit && (
              <path d={`M${x} 0V${HEIGHT}`} stroke="var(--iron)" strokeDasharray="2 3" />
            )}
            <rect
              x={x + 1}
              width={cell - 2}
              y={HEIGHT - y(whole)}
              height={y(whole)}
              fill="var(--iron-thin)"
            />
            <rect
              x={x + cell / 2 - 4}
              width={8}
              y={HEIGHT - y(here)}
              height={y(here)}
              fill={here === most ? 'var(--copper)' : 'var(--ink-quiet)'}
            />
            {here > 0 && (
              <text
                x={x + cell / 2}
                y={HEIGHT - y(here) - 3}
                textAnchor="middle"
                fontSize={10.5}
                fill="var(--ink)"
              >
                {here}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
