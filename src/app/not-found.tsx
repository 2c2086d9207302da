/** Unknown pages and jobs, with a way back. */
import Link from "next/link";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[60ch] p-12">
      <h1 className="font-semibold font-slab text-[26px]">There is nothing here</h1>
      <p className="mt-3">
        This job or page does not exist; it may have been deleted, or the address may be mistyped.
      </p>
      <p className="mt-4">
        <Link href="/" className="font-semibold text-enamel underline underline-offset-2">
          Back to all jobs
        </Link>
      </p>
    </main>
  );
}
