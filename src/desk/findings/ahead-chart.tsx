'use client';
/** How many people gain and lose something on each of the coming days. The list below says the same in words. */
import { max } from 'd3-array';
import { scaleLinear, scaleTime } from 'd3-scale';
import { type Day, dayInWords } from '@/core';
import type { SiteAhead } from '@/services';

const [WIDTH, HEIGHT, FOOT, LEFT] = [900, 150, 20, 28];

const timeOf = (day: Day): Date => new Date(`${day}T00:00:00Z`);

interface ChartProps {
  readonly ahead: SiteAhead;
  readonly chosen: Day | null;
  readonly onChoose: (day: Day | null) => void;
}

export function AheadChart({ ahead, chosen, onChoose }: ChartProps) {
  const { from, until, days } = ahead;
  const x = scaleTime([timeOf(from), timeOf(until)], [LEFT, WIDTH - 8]);
  const most = Math.max(1, max(days, ({ gain, lose }) => Math.max(gain, lose)) ?? 1);
  const y = scaleLinear([-most, most], [HEIGHT, 0]);
  const span = (WIDTH - LEFT) / Math.max(1, (timeOf(until).getTime() - timeOf(from).getTime()) / 86_400_000);
  const width = Math.max(3, Math.min(18, span * 0.7));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT + FOOT}`}
      // The name of the first day or the last may reach beyond the line.
      className="w-full max-w-5xl overflow-visible"
      role="img"
      aria-label="How many people gain and lose something, by day"
    >
      {[-most, most].map((value) => (
        <text
          key={value}
          x={LEFT - 6}
          y={y(value) + (value > 0 ? 10 : -2)}
          textAnchor="end"
          fontSize={11}
          fill="var(--ink-quiet)"
        >
          {Math.abs(value)}
        </text>
      ))}
      {x.ticks(6).map((tick) => (
        <g key={tick.getTime()} transform={`translate(${x(tick)},0)`}>
          <line y2={HEIGHT} stroke="var(--iron-thin)" />
          <text y={HEIGHT + 14} textAnchor="middle" fontSize={11} fill="var(--ink-quiet)">
            {dayInWords(tick.toISOString().slice(0, 10)).replace(/ \d{4}$/, '')}
          </text>
        </g>
      ))}
      <line x1={LEFT} x2={WIDTH} y1={y(0)} y2={y(0)} stroke="var(--iron)" />
      {days.map(({ on, gain, lose }) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: the list below can be read day by day as well
        <g
          key={on}
          transform={`translate(${x(timeOf(on)) - width / 2},0)`}
          onClick={() => onChoose(chosen === on ? null : on)}
          className="cursor-pointer"
          opacity={chosen === null || chosen === on ? 1 : 0.35}
        >
          <title>{`${dayInWords(on)}: ${gain} gain, ${lose} lose something`}</title>
          <rect width={width} height={HEIGHT} fill="transparent" />
          <rect y={y(gain)} width={width} height={y(0) - y(gain)} fill="var(--open)" />
          <rect y={y(0)} width={width} height={y(-lose) - y(0)} fill="var(--alarm)" />
        </g>
      ))}
    </svg>
  );
}
