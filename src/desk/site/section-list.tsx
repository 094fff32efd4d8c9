'use client';
/** The sections of a page in place: each can be changed, moved by dragging, put under a gate, taken out, and more be added. */
import { clsx } from 'clsx';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { type ItemId, SECTIONS, type SectionType } from '@/core';
import type { DocumentProblem, SectionRead } from '@/services';
import { Button, Pick } from '@/ui';
import { useDesk } from '../context';
import { GateMark } from '../marks';
import { DragList } from './drag-list';
import { aboutIn, newSection, offeredSections } from './new-section';
import { SectionEditor } from './section-editor';

interface SectionListProps {
  readonly page: ItemId;
  readonly sections: readonly SectionRead[];
  readonly problems: readonly DocumentProblem[];
  readonly onChange: (sections: readonly SectionRead[]) => void;
}

export function SectionList({ page, sections, problems, onChange }: SectionListProps) {
  const { vocabulary, outline } = useDesk();
  const about = aboutIn(vocabulary, outline);
  const add = (type: SectionType) => {
    const made = newSection(type, about);
    if (made) onChange([...sections, made]);
  };
  return (
    <>
      <h3 className="mt-6 mb-2">Sections</h3>
      {sections.length === 0 && <p className="note">Nothing stands on it yet. Add a text below.</p>}
      <DragList label="Sections" items={sections} onChange={onChange} nameOf={nameOf}>
        {(section, index, handle) => (
          <SectionRow
            page={page}
            section={section}
            handle={handle}
            problems={problems.filter(
              ({ path }) => path.split('.').slice(0, 2).join('.') === `sections.${index}`,
            )}
            onChange={(next) => onChange(sections.map((one, at) => (at === index ? next : one)))}
            onRemove={() => onChange(sections.filter((_, at) => at !== index))}
          />
        )}
      </DragList>
      <Pick
        label="Add a section"
        value=""
        options={[
          { value: '', label: '+ add a section …' },
          ...offeredSections(about).map((type) => ({ value: type as string, label: SECTIONS[type].name })),
        ]}
        onPick={(type) => type !== '' && add(type as SectionType)}
      />
    </>
  );
}

const nameOf = ({ type, title }: SectionRead): string => `${SECTIONS[type].name}: ${title}`;

interface SectionRowProps {
  readonly page: ItemId;
  readonly section: SectionRead;
  /** What it is dragged by. */
  readonly handle: ReactNode;
  readonly problems: readonly DocumentProblem[];
  readonly onChange: (section: SectionRead) => void;
  readonly onRemove: () => void;
}

function SectionRow({ page, section, handle, problems, onChange, onRemove }: SectionRowProps) {
  const { outline, compiled, setBench, setScreen, addGate } = useDesk();
  const item = outline.items.get(section.id as ItemId);
  const gate = (compiled.draft.covering.get(section.id as ItemId) ?? []).find(
    ({ setAside }) => !setAside,
  )?.gate;
  const name = nameOf(section);
  return (
    <section
      aria-label={name}
      className={clsx(
        'grid gap-2 border border-thin bg-raised px-3 py-2.5',
        problems.length > 0 && 'border-alarm',
      )}
    >
      <div className="flex items-center gap-2">
        {handle}
        <span className="note shrink-0">{SECTIONS[section.type].name}</span>
        <input
          aria-label="Name of the section"
          title="For the desk, and for those who are shown a lock or a teaser in its place"
          value={section.title}
          maxLength={200}
          onChange={(event) => onChange({ ...section, title: event.target.value })}
          className="min-w-0 flex-1 bg-transparent font-semibold"
        />
        {item && (
          <Button
            weight="quiet"
            size="small"
            aria-label={gate ? `The gate over ${section.title}` : `Put a gate on ${section.title}`}
            onClick={() => {
              setScreen({ kind: 'board' });
              if (gate) setBench({ kind: 'gate', gate: gate.id });
              else addGate(item);
            }}
          >
            {gate ? <GateMark standing="own" /> : '+ gate'}
          </Button>
        )}
        <Button weight="quiet" size="small" aria-label={`Take out ${name}`} onClick={onRemove}>
          <X size={14} aria-hidden="true" />
        </Button>
      </div>
      {gate && (
        <input
          aria-label={`Summary of ${section.title}`}
          placeholder="Its summary, for a teaser"
          value={section.summary}
          maxLength={2000}
          onChange={(event) => onChange({ ...section, summary: event.target.value })}
          className="w-full rounded-[3px] border border-iron bg-paper px-2 py-1"
        />
      )}
      <SectionEditor page={page} section={section} onChange={onChange} />
      {problems.map((problem) => (
        <p key={`${problem.line} ${problem.message}`} role="alert" className="text-alarm">
          {problem.line !== null && `Line ${problem.line}: `}
          {problem.message}
        </p>
      ))}
    </section>
  );
}
