'use client';
import { permits } from '@/core';
import { useDesk } from '../context';
import { Learners } from './learners';
import type { Looking } from './looking';

/** The learners of a course, as a screen of the desk. */
export function LearnersScreen({ course, person, day }: Looking) {
  const { data, setScreen } = useDesk();
  const open = (who: string) => setScreen({ kind: 'person', person: who });
  return (
    <Learners
      looking={{ course, person, day }}
      onLook={(looking) => setScreen({ kind: 'learners', ...looking })}
      today={data.request.today}
      onPerson={permits(data.desk, 'look') ? open : null}
    />
  );
}
