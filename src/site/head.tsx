/** What a page tells other sites and search engines of itself: OpenGraph, and schema.org where it is not free to read. */
import type { PageAnswer } from '@/services';
import type { Delivery } from './shell';

interface HeadProps {
  readonly answer: Extract<PageAnswer, { kind: 'page' | 'teaser' }>;
  readonly siteTitle: string;
  readonly delivery: Delivery;
}

/** The same decision as the page's: a teaser tells what the teaser shows, and no picture. */
export function Head({ answer, siteTitle, delivery }: HeadProps) {
  if (delivery.walk) return null;
  const { facts } = answer;
  const address = delivery.origin + encodeURI(answer.address);
  const description = answer.kind === 'page' ? answer.summary : answer.text;
  const picture = answer.kind === 'page' ? answer.picture : null;
  return (
    <>
      <link rel="canonical" href={address} />
      <meta property="og:title" content={facts.title} />
      <meta property="og:type" content={facts.kind === 'post' ? 'article' : 'website'} />
      <meta property="og:url" content={address} />
      <meta property="og:site_name" content={siteTitle} />
      {description && <meta property="og:description" content={description} />}
      {picture && <meta property="og:image" content={delivery.origin + picture.address} />}
      {picture?.alt && <meta property="og:image:alt" content={picture.alt} />}
      {facts.kind === 'post' && facts.date && <meta property="article:published_time" content={facts.date} />}
      {answer.kind === 'page' && facts.kind === 'course' && (
        <script
          type="application/ld+json"
          // biome-ignore lint/security/noDangerouslySetInnerHtml: data, with every < escaped
          dangerouslySetInnerHTML={{ __html: courseMarkup(answer, address, siteTitle) }}
        />
      )}
      {answer.kind === 'teaser' && (
        <script
          type="application/ld+json"
          // biome-ignore lint/security/noDangerouslySetInnerHtml: data, with every < escaped
          dangerouslySetInnerHTML={{ __html: notFree(answer, address) }}
        />
      )}
    </>
  );
}

/** schema.org's markup for a course (https://schema.org/Course), for those to whom its page is open. */
function courseMarkup(
  { facts, summary }: Extract<PageAnswer, { kind: 'page' }>,
  url: string,
  siteTitle: string,
): string {
  return asData({
    '@context': 'https://schema.org',
    '@type': 'Course',
    name: facts.title,
    url,
    ...(summary && { description: summary }),
    provider: { '@type': 'Organization', name: siteTitle },
  });
}

const asData = (markup: object): string => JSON.stringify(markup).replaceAll('<', '\\u003c');

/** schema.org's markup for content that is not free to read (https://schema.org/isAccessibleForFree). */
function notFree({ facts, text }: Extract<PageAnswer, { kind: 'teaser' }>, address: string): string {
  const markup = {
    '@context': 'https://schema.org',
    '@type': facts.kind === 'post' ? 'Article' : 'WebPage',
    headline: facts.title,
    url: address,
    ...(text && { description: text }),
    ...(facts.date && { datePublished: facts.date }),
    ...(facts.author && { author: { '@type': 'Person', name: facts.author } }),
    isAccessibleForFree: false,
    hasPart: { '@type': 'WebPageElement', isAccessibleForFree: false, cssSelector: '.threshold' },
  };
  return asData(markup);
}
