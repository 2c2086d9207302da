/** In the place of a desk: the job is there, but its document cannot be read. */
import { Download } from "lucide-react";
import { buttonClass } from "../common/button";
import { HomeFrame } from "../common/home-frame";

export function UnreadablePage({ why, id }: { readonly why: string; readonly id: string }) {
  return (
    <HomeFrame current="Jobs">
      <div className="mx-auto max-w-[720px] px-6 py-10">
        <h1 className="font-semibold font-slab text-[26px]">This job cannot be read</h1>
        <p className="mt-3 text-oxide">{why}</p>
        <p className="mt-3 text-ink-soft">No data is lost, and no other job is affected.</p>
        <a
          className={`${buttonClass("outline")} mt-5`}
          href={`/api/jobs/${encodeURIComponent(id)}/file`}
          download
        >
          <Download size={15} aria-hidden /> Take its file away
        </a>
      </div>
    </HomeFrame>
  );
}
