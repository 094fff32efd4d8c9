'use client';
/** What came in and what runs, month by month, as small charts that stand beside one another. */
import { max, min, sum } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { counted, moneyInWords } from '@/core';
import type { SalesCharts } from '@/services';

const WIDTH = 240;
const HEIGHT = 112;
const FOOT = 18;
const TOP = 14;
const LEFT = 4;

const NAMES = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const monthName = (month: string): string => NAMES[Number(month.slice(5)) - 1] ?? '';

export function Charts({ charts }: { readonly charts: SalesCharts }) {
  return (
    <div className="mt-4 grid grid-cols-[repeat(auto-fit,minmax(13rem,1fr))] gap-x-6 gap-y-4">
      {charts.taken.map(({ currency, amounts }) => (
        <TakenChart key={currency} months={charts.months} currency={currency} amounts={amounts} />
      ))}
      <RunningChart charts={charts} />
      <ComingChart charts={charts} />
    </div>
  );
}

const bands = (months: readonly string[]) => scaleBand(months, [LEFT, WIDTH - LEFT]).paddingInner(0.3);

/** The names of months below a chart: every third one, the last always. */
function Months({ months }: { readonly months: readonly string[] }) {
  const x = bands(months);
  return months.map((month, at) =>
    (months.length - 1 - at) % 3 > 0 ? null : (
      <text
        key={month}
        x={(x(month) ?? 0) + x.bandwidth() / 2}
        y={HEIGHT - 4}
        textAnchor="middle"
        fontSize={10.5}
        fill="var(--ink-quiet)"
      >
        {monthName(month)}
      </text>
    ),
  );
}

function Figure({
  title,
  now,
  children,
  label,
}: {
  readonly title: string;
  /** What it is in the last month, in words. */
  readonly now: string;
  /** The same as the picture, for those who can't see it. */
  readonly label: string;
  readonly children: React.ReactNode;
}) {
  return (
    <figure>
      <figcaption className="flex items-baseline justify-between gap-2">
        <span className="font-head">{title}</span>
        <span className="note">{now}</span>
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label={label}>
        {children}
      </svg>
    </figure>
  );
}

interface TakenProps {
  readonly months: readonly string[];
  readonly currency: string;
  readonly amounts: readonly number[];
}

function TakenChart({ months, currency, amounts }: TakenProps) {
  const money = (amount: number) => moneyInWords({ amount, currency });
  const x = bands(months);
  const y = scaleLinear(
    [Math.min(0, min(amounts) ?? 0), Math.max(1, max(amounts) ?? 0)],
    [HEIGHT - FOOT, TOP],
  );
  const last = months.length - 1;
  return (
    <Figure
      title={`Taken, ${currency}`}
      now={`${money(amounts[last] ?? 0)} this month`}
      label={`Taken each month: ${months.map((month, at) => `${monthName(month)} ${money(amounts[at] ?? 0)}`).join(', ')}`}
    >
      <path d={`M${LEFT} ${y(0)}H${WIDTH - LEFT}`} stroke="var(--iron)" />
      {months.map((month, at) => {
        const amount = amounts[at] ?? 0;
        return (
          <rect
            key={month}
            x={x(month)}
            width={x.bandwidth()}
            y={Math.min(y(amount), y(0))}
            height={Math.abs(y(amount) - y(0))}
            fill={at === last ? 'var(--copper)' : 'var(--ink-quiet)'}
          >
            <title>{`${monthName(month)}: ${money(amount)}`}</title>
          </rect>
        );
      })}
      <Months months={months} />
    </Figure>
  );
}

const FILLS = ['var(--open)', 'var(--redirect)', 'var(--teaser)', 'var(--message)', 'var(--missing)'];

function RunningChart({ charts: { months, running } }: { readonly charts: SalesCharts }) {
  const x = bands(months);
  const totals = months.map((_, at) => sum(running, ({ counts }) => counts[at] ?? 0));
  const y = scaleLinear([0, Math.max(1, max(totals) ?? 0)], [HEIGHT - FOOT, TOP]);
  const now = running.map(({ name, counts }) => `${counts.at(-1) ?? 0} ${name}`).join(', ');
  return (
    <div>
      <Figure
        title="In force"
        now={`${counted(totals.at(-1) ?? 0, 'order')} today`}
        label={`In force now: ${now}`}
      >
        {months.map((month, at) => {
          let below = 0;
          return running.map(({ product, name, counts }, place) => {
            const count = counts[at] ?? 0;
            const from = below;
            below += count;
            return count === 0 ? null : (
              <rect
                key={`${month} ${product}`}
                x={x(month)}
                width={x.bandwidth()}
                y={y(below)}
                height={y(from) - y(below)}
                fill={FILLS[place % FILLS.length]}
              >
                <title>{`${monthName(month)}: ${count} ${name}`}</title>
              </rect>
            );
          });
        })}
        <path d={`M${LEFT} ${HEIGHT - FOOT}H${WIDTH - LEFT}`} stroke="var(--iron)" />
        <Months months={months} />
      </Figure>
      <ul className="note flex flex-wrap gap-x-3">
        {running.map(({ product, name, counts }, place) => (
          <li key={product} className="flex items-center gap-1">
            <span
              aria-hidden="true"
              className="inline-block size-2.5"
              style={{ background: FILLS[place % FILLS.length] }}
            />
            {name} {counts.at(-1)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function ComingChart({ charts: { months, starts, ends } }: { readonly charts: SalesCharts }) {
  const x = bands(months);
  const most = Math.max(1, max([...starts, ...ends]) ?? 0);
  const y = scaleLinear([-most, most], [HEIGHT - FOOT, TOP]);
  const last = months.length - 1;
  return (
    <Figure
      title="Come and gone"
      now={`${starts[last] ?? 0} began, ${ends[last] ?? 0} ended`}
      label={`Each month: ${months.map((month, at) => `${monthName(month)} ${starts[at]} began, ${ends[at]} ended`).join('; ')}`}
    >
      {months.map((month, at) => (
        <g key={month}>
          <rect
            x={x(month)}
            width={x.bandwidth()}
            y={y(starts[at] ?? 0)}
            height={y(0) - y(starts[at] ?? 0)}
            fill="var(--open)"
          >
            <title>{`${monthName(month)}: ${starts[at]} began`}</title>
          </rect>
          <rect
            x={x(month)}
            width={x.bandwidth()}
            y={y(0)}
            height={y(-(ends[at] ?? 0)) - y(0)}
            fill="var(--message)"
          >
            <title>{`${monthName(month)}: ${ends[at]} ended`}</title>
          </rect>
        </g>
      ))}
      <path d={`M${LEFT} ${y(0)}H${WIDTH - LEFT}`} stroke="var(--iron)" />
      <Months months={months} />
    </Figure>
  );
}
