'use client';
import { useState } from 'react';
import type { Member } from '@/core';
import { Button, type Findable, Finder } from '@/ui';
import { useMemberSearch } from '../use-member-search';

interface FoundMember extends Findable {
  readonly email: string;
}

/** A member by typing a part of their name or address. */
export function PersonInput({
  value,
  onChange,
  trigger,
}: {
  readonly value: string;
  readonly onChange: (email: string) => void;
  readonly trigger?: string;
}) {
  const [members, setMembers] = useState<readonly Member[]>([]);
  const search = useMemberSearch(setMembers);
  return (
    <Finder<FoundMember>
      label="Members"
      placeholder="Name or mail address"
      nothing="Nobody by that name."
      trigger={<Button>{trigger ?? (value || 'Choose a member')}</Button>}
      found={members.map(({ id, name, facts }) => ({
        key: id,
        label: name,
        note: facts.email ?? '',
        email: facts.email ?? '',
      }))}
      onType={search}
      onChoose={({ email }) => onChange(email)}
    />
  );
}
