'use client';
import { useState } from 'react';
import type { Member } from '@/core';
import { Button, type Findable, Finder } from '@/ui';
import { useMemberSearch } from './use-member-search';

interface FoundMember extends Findable {
  readonly member: Member;
}

/** A member by typing a part of their name or address. */
export function MemberInput({
  trigger,
  onChoose,
}: {
  readonly trigger: string;
  readonly onChoose: (member: Member) => void;
}) {
  const [members, setMembers] = useState<readonly Member[]>([]);
  const search = useMemberSearch(setMembers);
  return (
    <Finder<FoundMember>
      label="Members"
      placeholder="Name or mail address"
      nothing="Nobody by that name."
      trigger={<Button>{trigger}</Button>}
      found={members.map((member) => ({
        key: member.id,
        label: member.name,
        note: member.facts.email ?? '',
        member,
      }))}
      onType={search}
      onChoose={({ member }) => onChoose(member)}
    />
  );
}
