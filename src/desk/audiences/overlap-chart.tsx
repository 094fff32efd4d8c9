'use client';
/**
 * Audiences and how they overlap: a row each with its count, and a circle wherever two meet, its area in proportion to the
 * people they share. The ring around it is the smaller of the two: a full ring means one lies within the other.
 */
import { clsx } from 'clsx';
import { scaleLinear, scaleSqrt } from 'd3-scale';
import { type Audience, type AudienceId, counted } from '@/core';
import type { AudienceReport } from '@/services';
import type { Wanted } from './intersection';

interface ChartProps {
  readonly audiences: readonly Audience[];
  readonly report: AudienceReport | null;
  readonly chosen: AudienceId | null;
  readonly wanted: Wanted;
  readonly onChoose: (audience: AudienceId) => void;
  readonly onMeet: (a: AudienceId, b: AudienceId) => void;
}

const ROW = 34;
const NAMES = 190;
const BARS = 110;

export function OverlapChart({ audiences, report, chosen, wanted, onChoose, onMeet }: ChartProps) {
  const shown = audiences.slice(0, report?.overlaps.length ?? audiences.length);
  const counts = shown.map(({ id }) => report?.audiences.find((one) => one.id === id)?.count ?? 0);
  const most = Math.max(1, ...counts);
  const bar = scaleLinear([0, most], [0, BARS - 34]);
  const radius = scaleSqrt([0, most], [0, ROW / 2 - 2]);
  const left = NAMES + BARS;
  const middle = (at: number) => at * ROW + ROW / 2;
  const lit = new Set(wanted.in);
  return (
    <div className="mt-4 overflow-x-auto">
      <div className="relative" style={{ height: shown.length * ROW, width: left + shown.length * ROW }}>
        {shown.map((audience, at) => (
          <button
            key={audience.id}
            type="button"
            aria-current={audience.id === chosen ? 'true' : undefined}
            aria-label={`${audience.name}, ${counted(counts[at] ?? 0, 'person', 'people')}`}
            onClick={() => onChoose(audience.id)}
            style={{ top: at * ROW, height: ROW, width: left + at * ROW }}
            className={clsx(
              'absolute left-0 rounded-l-[3px] border-thin border-b text-left hover:bg-sunk',
              audience.id === chosen && 'bg-wash/70',
            )}
          >
            <span
              className={clsx(
                'block truncate pr-3 pl-1',
                lit.has(audience.id) && 'font-semibold text-copper',
              )}
              style={{ width: NAMES }}
            >
              {audience.name}
            </span>
          </button>
        ))}
        <svg
          width={left + shown.length * ROW}
          height={shown.length * ROW}
          className="pointer-events-none absolute inset-0"
          role="img"
          aria-label="How many people are in each audience, and in each two of them"
        >
          {shown.map((audience, at) => (
            <g key={audience.id} transform={`translate(0 ${middle(at)})`}>
              <rect x={NAMES} y={-5} width={bar(counts[at] ?? 0)} height={10} rx={2} className="fill-iron" />
              <text x={NAMES + bar(counts[at] ?? 0) + 6} dy="0.35em" className="fill-ink text-xs">
                {counts[at]}
              </text>
              {/* The column that this row's audience has below it. */}
              <line
                x1={left + middle(at)}
                x2={left + middle(at)}
                y1={0}
                y2={(shown.length - 1 - at) * ROW}
                className="stroke-thin"
              />
              <circle
                cx={left + middle(at)}
                r={3}
                className={lit.has(audience.id) ? 'fill-copper' : 'fill-iron'}
              />
            </g>
          ))}
        </svg>
        {shown.map((a, row) =>
          shown.slice(0, row).map((b, column) => {
            const shared = report?.overlaps[row]?.[column] ?? 0;
            const smaller = Math.min(counts[row] ?? 0, counts[column] ?? 0);
            const on = lit.size === 2 && lit.has(a.id) && lit.has(b.id);
            return (
              <button
                key={`${a.id} ${b.id}`}
                type="button"
                onClick={() => onMeet(b.id, a.id)}
                title={`${b.name} and ${a.name}: ${shared} of ${smaller}`}
                aria-label={`In both ${b.name} and ${a.name}: ${shared}`}
                aria-pressed={on}
                style={{ top: row * ROW, left: left + column * ROW, width: ROW, height: ROW }}
                className={clsx('absolute rounded-full hover:bg-wash', on && 'bg-wash')}
              >
                <svg width={ROW} height={ROW} aria-hidden="true">
                  <g transform={`translate(${ROW / 2} ${ROW / 2})`}>
                    <circle r={radius(smaller)} className="fill-none stroke-thin" />
                    <circle r={radius(shared)} className={on ? 'fill-copper' : 'fill-open opacity-80'} />
                    {shared > 0 && radius(shared) > 8 && (
                      <text dy="0.35em" textAnchor="middle" className="fill-paper text-[0.6875rem]">
                        {shared}
                      </text>
                    )}
                    {shared === 0 && <circle r={1.5} className="fill-thin" />}
                  </g>
                </svg>
              </button>
            );
          }),
        )}
      </div>
      {audiences.length > shown.length && (
        <p className="note mt-2">
          The first {shown.length} are compared; the others are in the list of names.
        </p>
      )}
    </div>
  );
}
