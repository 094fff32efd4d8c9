import type { Entry, ShownPicture } from '@/services';
import { LockSign } from './lock-sign';
import { say } from './wording';

/** A list of posts, the latest first; each says what its reader gets. */
export function Entries({ entries, level }: { readonly entries: readonly Entry[]; readonly level: 2 | 3 }) {
  const Title = level === 2 ? 'h2' : 'h3';
  return (
    <ul className="entries">
      {entries.map((entry) => (
        <li key={entry.id} className={entry.picture || entry.coarse ? 'entry entry-pictured' : 'entry'}>
          {entry.picture && <Picture picture={entry.picture} lazy />}
          {entry.coarse && <Coarse source={entry.coarse} />}
          <div>
            <Title className="entry-title">
              {entry.teaser && <LockSign />}
              <a href={entry.address}>{entry.title}</a>
            </Title>
            <Byline entry={entry} />
            {entry.text && <p>{entry.text}</p>}
            {entry.teaser?.reason && <p className="entry-reason">{entry.teaser.reason}</p>}
          </div>
        </li>
      ))}
    </ul>
  );
}

/** When, by whom, in what category. */
export function Byline({ entry }: { readonly entry: Pick<Entry, 'date' | 'author' | 'category'> }) {
  const parts = [
    entry.date && <time dateTime={entry.date}>{say().day(entry.date)}</time>,
    entry.author,
    entry.category,
  ].filter(Boolean);
  return parts.length === 0 ? null : (
    <p className="byline">
      {parts.map((part, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the parts never move
        <span key={index}>{part}</span>
      ))}
    </p>
  );
}

export const Picture = ({
  picture,
  lazy = false,
}: {
  readonly picture: ShownPicture;
  readonly lazy?: boolean;
}) => (
  <img
    src={picture.address}
    alt={picture.alt}
    width={picture.width}
    height={picture.height}
    loading={lazy ? 'lazy' : undefined}
  />
);

/** A picture of which only its colours are told. */
export const Coarse = ({ source }: { readonly source: string }) => (
  <span className="coarse">
    <img src={source} alt="" />
  </span>
);
