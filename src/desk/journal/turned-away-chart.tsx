'use client';
/** Where visitors were turned away: a bar an item, cut by what they did next. The table below says the same in numbers. */
import { max, sum } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import type { Tally } from '@/services';

export const NEXT = [
  { key: 'gotIn', label: 'came back and got in', fill: 'var(--open)' },
  { key: 'signedUp', label: 'signed up', fill: 'var(--redirect)' },
  { key: 'signedIn', label: 'signed in', fill: 'var(--teaser)' },
  { key: 'left', label: 'left', fill: 'var(--missing)' },
] as const satisfies readonly { readonly key: keyof Tally; readonly label: string; readonly fill: string }[];

export interface Bar extends Tally {
  readonly key: string;
  readonly label: string;
}

const WIDTH = 760;
const LABELS = 210;
const BAR = 24;
const FOOT = 24;

export function TurnedAwayChart({ bars }: { readonly bars: readonly Bar[] }) {
  const height = bars.length * BAR + FOOT;
  const x = scaleLinear([0, max(bars, ({ count }) => count) ?? 1], [LABELS, WIDTH - 40]).nice();
  const y = scaleBand(
    bars.map(({ key }) => key),
    [0, bars.length * BAR],
  ).paddingInner(0.35);
  const ticks = x.ticks(5).filter(Number.isInteger);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full max-w-4xl"
      role="img"
      aria-label="Where visitors were turned away, by item and what they did next"
    >
      {ticks.map((tick) => (
        <g key={tick} transform={`translate(${x(tick)},0)`}>
          <line y2={bars.length * BAR} stroke="var(--iron-thin)" />
          <text y={bars.length * BAR + 16} textAnchor="middle" fontSize={11} fill="var(--ink-quiet)">
            {tick}
          </text>
        </g>
      ))}
      {bars.map((bar) => {
        const open = bar.count - sum(NEXT, ({ key }) => bar[key]);
        let from = 0;
        return (
          <g key={bar.key} transform={`translate(0,${y(bar.key) ?? 0})`}>
            <text
              x={LABELS - 10}
              y={y.bandwidth() / 2 + 4}
              textAnchor="end"
              fontSize={12.5}
              fill="var(--ink)"
            >
              {shortened(bar.label)}
            </text>
            {NEXT.map(({ key, fill, label }) => {
              const start = x(from);
              from += bar[key];
              return bar[key] === 0 ? null : (
                <rect key={key} x={start} width={x(from) - start} height={y.bandwidth()} fill={fill}>
                  <title>{`${bar.label}: ${bar[key]} ${label}`}</title>
                </rect>
              );
            })}
            {open > 0 && (
              <rect
                x={x(from)}
                width={x(from + open) - x(from)}
                height={y.bandwidth()}
                fill="none"
                stroke="var(--iron)"
                strokeDasharray="3 2"
              >
                <title>{`${bar.label}: ${open} may still come back`}</title>
              </rect>
            )}
            <text x={x(bar.count) + 6} y={y.bandwidth() / 2 + 4} fontSize={12} fill="var(--ink-quiet)">
              {bar.count}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

const shortened = (text: string): string => (text.length > 30 ? `${text.slice(0, 29)}…` : text);
