/** The small picture of a job as SVG; a browser keeps it for as long as it is asked for by what it was drawn from. */
import { connection, jobPicture } from "@/server";
import { guarded, NO_SUCH_JOB } from "../../../answer";

export function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }) {
  return guarded(async () => {
    const picture = await jobPicture(await connection(), (await params).id);
    if (!picture) return NO_SUCH_JOB();
    const asked = new URL(request.url).searchParams.get("of");
    const tag = `"${picture.tag}"`;
    const headers = {
      etag: tag,
      "cache-control": asked === picture.tag ? "private, max-age=31536000, immutable" : "private, no-cache",
    };
    if (request.headers.get("if-none-match") === tag) return new Response(null, { status: 304, headers });
    return new Response(picture.svg, { headers: { ...headers, "content-type": "image/svg+xml" } });
  });
}
