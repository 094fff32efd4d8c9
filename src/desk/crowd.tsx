'use client';
import { Fragment } from 'react';
import { keyOfStandIn, type Member } from '@/core';
import type { Crowd } from '@/services';
import { useDesk } from './context';

/** Some people by name and how many more; each goes on the board at a click. */
export function CrowdNames({ crowd, most = 4 }: { readonly crowd: Crowd; readonly most?: number }) {
  const { standIns, setStandIns } = useDesk();
  const shown = crowd.first.slice(0, most);
  const more = crowd.count - shown.length;
  const onBoard = (member: Member) => standIns.some((one) => keyOfStandIn(one) === `member:${member.id}`);
  return (
    <>
      {shown.map((member, index) => (
        <Fragment key={member.id}>
          {/* A comma does not begin a line. */}
          <span className="whitespace-nowrap">
            {onBoard(member) ? (
              member.name
            ) : (
              <button
                type="button"
                title={`Put ${member.name} on the board`}
                onClick={() => setStandIns([...standIns, { kind: 'member', member }])}
                className="underline decoration-thin underline-offset-3 hover:text-copper"
              >
                {member.name}
              </button>
            )}
            {index < shown.length - 1 && !(more === 0 && index === shown.length - 2) && ','}
          </span>
          {index < shown.length - 1 && (more === 0 && index === shown.length - 2 ? ' and ' : ' ')}
        </Fragment>
      ))}
      {more > 0 && ` and ${more} more`}
    </>
  );
}
