/**
 * Anchors of headings, once each on a page. Several texts can stand on one page, and each has made its own; which of them this
 * visitor gets is known only here.
 */

const ANY_ID = /<[a-z][^<>]* id="([^"]*)"/g;
const OF_HEADING = /(<h[1-6]) id="([^"]*)"/g;

/** The same document, in which no heading has the id of anything that stands before it, nor of a part of the page itself. */
export function withAnchorsOnce(html: string): string {
  const headings = [...html.matchAll(OF_HEADING)];
  return headings.length <= FEW && headings.every(([, , id = '']) => isOnce(id, html))
    ? html
    : madeOnce(html);
}

// Nearly always there are few and nothing stands twice, and looking for one text takes a tenth of looking for all there are.
const FEW = 20;
function isOnce(id: string, html: string): boolean {
  const said = ` id="${id}"`;
  return html.indexOf(said) === html.lastIndexOf(said);
}

function madeOnce(html: string): string {
  const others = new Set<string>();
  const headings = new Map<string, number>();
  for (const [, , id = ''] of html.matchAll(OF_HEADING)) headings.set(id, (headings.get(id) ?? 0) + 1);
  for (const [, id = ''] of html.matchAll(ANY_ID)) {
    const left = headings.get(id) ?? 0;
    if (left > 0) headings.set(id, left - 1);
    else others.add(id);
  }
  const taken = new Set(others);
  return html.replace(OF_HEADING, (_, tag: string, id: string) => {
    let own = id;
    for (let count = 1; taken.has(own); count++) own = `${id}-${count}`;
    taken.add(own);
    return `${tag} id="${own}"`;
  });
}
