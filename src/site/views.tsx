/** What each answer looks like. Nothing here decides; what was withheld never got this far. */
import type { ListAnswer, PageAnswer, SearchAnswer } from '@/services';
import { Outline, onwards, Whereabouts } from './course';
import { Byline, Coarse, Entries, Picture } from './entries';
import { Head } from './head';
import { LockSign } from './lock-sign';
import { Prose, Sections } from './sections';
import { type Delivery, Near, Shell } from './shell';
import { Threshold } from './threshold';
import { say } from './wording';

type Of<Kind extends PageAnswer['kind']> = Extract<PageAnswer, { kind: Kind }>;

interface ViewProps<Kind extends PageAnswer['kind']> {
  readonly answer: Of<Kind>;
  readonly delivery: Delivery;
}

export function PageView({ answer, delivery }: ViewProps<'page'>) {
  const { frame, facts, lead, summary, sections, neighbours } = answer;
  const [first] = sections;
  const hasOwnHeading = first !== undefined && 'html' in first && first.html.startsWith('<h1');
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={facts.title}
      description={summary}
      head={
        <>
          <Head answer={answer} siteTitle={frame.siteTitle} delivery={delivery} />
          {answer.activity?.watch && !delivery.walk && (
            <script defer src={delivery.watchScript} integrity={delivery.watchDigest} />
          )}
        </>
      }
      placed
      below={answer.activity ? onwards(answer.activity) : ''}
    >
      <article>
        {answer.activity && <Whereabouts place={answer.activity} />}
        {!hasOwnHeading && (
          <>
            <h1>{facts.title}</h1>
            {facts.kind === 'post' ? <Byline entry={facts} /> : lead && <p className="lead">{lead}</p>}
          </>
        )}
        {answer.picture && (
          <figure className="figure">
            <Picture picture={answer.picture} />
          </figure>
        )}
        <Near frame={frame} spot="before" />
        <Sections sections={sections} />
        {answer.course && <Outline course={answer.course} />}
        <Near frame={frame} spot="after" />
        {facts.tags.length > 0 && <p className="tags">{facts.tags.join(' · ')}</p>}
      </article>
      {neighbours && (neighbours.previous || neighbours.next) && (
        <nav className="neighbours" aria-label={say().lists.more(facts.category)}>
          {neighbours.previous && (
            <a href={neighbours.previous.address} rel="prev">
              <span className="hint">{say().lists.previous}</span> {neighbours.previous.title}
            </a>
          )}
          {neighbours.next && (
            <a href={neighbours.next.address} rel="next">
              <span className="hint">{say().lists.next}</span> {neighbours.next.title}
            </a>
          )}
        </nav>
      )}
    </Shell>
  );
}

export function TeaserView({ answer, delivery }: ViewProps<'teaser'>) {
  const { frame, facts, text, coarse, reason, step } = answer;
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={facts.title}
      {...(text && { description: text })}
      head={<Head answer={answer} siteTitle={frame.siteTitle} delivery={delivery} />}
    >
      <article>
        <h1>{facts.title}</h1>
        {facts.kind === 'post' && <Byline entry={facts} />}
        {coarse && <Coarse source={coarse} />}
        {text && <p className="lead">{text}</p>}
        <Threshold reason={reason} step={step} />
      </article>
    </Shell>
  );
}

export function MessageView({ answer, delivery }: ViewProps<'message'>) {
  return (
    <Shell frame={answer.frame} delivery={delivery} title={answer.title ?? say().frame.closed}>
      {answer.title === null ? (
        <h1>{say().frame.closedHeading}</h1>
      ) : (
        <h1>
          <LockSign /> {answer.title}
        </h1>
      )}
      <Threshold reason={answer.reason} step={answer.step} />
    </Shell>
  );
}

export function MissingView({ answer, delivery }: ViewProps<'missing'>) {
  const words = say().frame;
  return (
    <Shell frame={answer.frame} delivery={delivery} title={words.nothing}>
      {!answer.frame.missing.startsWith('<h1') && <h1>{words.nothingHeading}</h1>}
      {answer.frame.missing === '' ? (
        <p className="lead">{words.nothingText}</p>
      ) : (
        <Prose html={answer.frame.missing} />
      )}
    </Shell>
  );
}

interface ListViewProps {
  readonly answer: Extract<ListAnswer, { kind: 'list' }>;
  readonly delivery: Delivery;
}

export function ListView({ answer, delivery }: ListViewProps) {
  const { frame, title, of, entries, newer, older, feed } = answer;
  const words = say().lists;
  return (
    <Shell frame={frame} delivery={delivery} title={title}>
      <h1>{of === 'tag' ? words.tagged(title) : title}</h1>
      <div className="part">
        <Entries entries={entries} level={2} />
      </div>
      <p className="more flex flex-wrap gap-6">
        {newer && (
          <a href={newer} rel="prev">
            {words.newer}
          </a>
        )}
        {older && (
          <a href={older} rel="next">
            {words.older}
          </a>
        )}
        {feed && !delivery.walk && <a href={feed}>{words.feed}</a>}
      </p>
    </Shell>
  );
}

export function SearchView({
  answer,
  delivery,
}: {
  readonly answer: SearchAnswer;
  readonly delivery: Delivery;
}) {
  const { frame, question, hits, more } = answer;
  const words = say().lists;
  return (
    <Shell
      frame={frame}
      delivery={delivery}
      title={question === '' ? say().frame.search : words.search(question)}
    >
      <h1>{say().frame.search}</h1>
      <search>
        <form action={frame.search} className="search">
          <label htmlFor="q" className="sr-only">
            {words.lookFor}
          </label>
          <input id="q" name="q" type="search" defaultValue={question} maxLength={200} />
          <button className="button" type="submit">
            {words.look}
          </button>
        </form>
      </search>
      {question !== '' && (
        <p className="lead" role="status">
          {hits.length === 0 ? words.noHits : words.hits(hits.length, more)}
        </p>
      )}
      <ul className="entries">
        {hits.map((hit) => (
          <li key={hit.item} className="entry">
            <h2 className="entry-title">
              {hit.teaser && <LockSign />}
              <a href={hit.address}>{hit.title}</a>
            </h2>
            {hit.passage.length > 0 && (
              <p>
                {hit.passage.map((part, index) =>
                  // biome-ignore lint/suspicious/noArrayIndexKey: the parts never move
                  part.marked ? <mark key={index}>{part.text}</mark> : part.text,
                )}
              </p>
            )}
          </li>
        ))}
      </ul>
    </Shell>
  );
}
