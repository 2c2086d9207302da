/** Labels of rack pieces as PDF. */
import { connection, printRackLabels } from "@/server";
import { download, guarded, sayProblem } from "../../answer";

export function GET(request: Request) {
  return guarded(async () => {
    const ids = (new URL(request.url).searchParams.get("ids") ?? "").split(",").filter((id) => id !== "");
    const pdf = await printRackLabels(await connection(), ids.slice(0, 500), new Date());
    return pdf
      ? download(pdf, "application/pdf", "rack-labels.pdf")
      : sayProblem("None of these offcuts is in the rack any more.", 404);
  });
}
