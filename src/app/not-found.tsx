import Link from 'next/link';

/** An address of the desk that leads nowhere. */
export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-12">
      <h1 className="text-2xl">There is nothing at this address of the desk</h1>
      <p className="mt-2">
        <Link href="/desk" className="underline underline-offset-3 hover:text-copper">
          Back to the board
        </Link>
      </p>
    </main>
  );
}
