'use client';
import { Button } from '@/ui';

/** Something broke at the desk. Every edit that was shown as saved is saved. */
export default function DeskError({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main className="mx-auto grid max-w-xl gap-3 p-12">
      <h1 className="text-2xl">This part of the desk stopped working</h1>
      <p>What was shown as saved is saved. Try again; if it stops again, tell us this: {error.message}</p>
      <div>
        <Button weight="main" onClick={reset}>
          Try again
        </Button>
      </div>
    </main>
  );
}
