import { counted, type Finding, type Gate, type ItemId, listed, type Outline } from '@/core';

/** What a finding says of its gate, in a sentence or two. */
export function findingText(
  finding: Finding,
  {
    outline,
    gates,
    sentenceOf,
  }: {
    readonly outline: Outline;
    readonly gates: readonly Gate[];
    readonly sentenceOf: (gate: Gate) => string;
  },
): string {
  const title = (id: ItemId) => {
    const item = outline.items.get(id);
    return item?.title ? `“${item.title}”` : 'something without a name';
  };
  switch (finding.kind) {
    case 'nobody passes':
      return 'Nobody there could be passes this gate, on any day to come.';
    case 'contradiction': {
      const other = gates.find(({ id }) => id === finding.other);
      const items = finding.items.map(title);
      const over = items.length > 3 ? counted(items.length, 'item') : listed(items);
      return `Nobody can pass this gate and the one that says “${other ? sentenceOf(other) : ''}” as well, so ${over} can be opened by nobody.`;
    }
    case 'changes nothing':
      return 'Whoever this gate turns away is turned away by others anyway. Without it, the same items would be open to the same visitors.';
    case 'set aside':
      return 'Gates below it say “instead” over everything it covers, so it never speaks.';
    case 'case never reached':
      return `Nobody ever comes to case ${finding.index + 1} of what the rest get: they pass the gate, or a case before it is theirs.`;
    case 'hidden link':
      return `There are members who can open ${title(finding.page)} and don’t get the link ${title(finding.link)} to it.`;
    case 'not decided':
      return `What this gate comes to for everybody could not be worked out. ${finding.why}`;
    default:
      return finding satisfies never;
  }
}
