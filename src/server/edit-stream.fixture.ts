/**
 * A process that makes edits one after the other and says each one as soon as it is acknowledged; the
 * test kills it in the middle. Arguments: database, job, revision to start from.
 */
import { openDatabase } from "@/db";
import { submitEdit } from "./edits";

const [url = "", id = "", start = "1"] = process.argv.slice(2);
const db = await openDatabase(url);
let revision = Number(start);
for (let i = 1; ; i++) {
  const edit = { kind: "changeMembers", ids: ["front"], set: { name: `Name ${i}` } } as const;
  const outcome = await submitEdit(db, id, revision, { ...edit, ids: [...edit.ids] });
  if (outcome?.answer.status !== "applied") throw new Error("the edit was not applied");
  revision = outcome.stored.revision;
  process.stdout.write(`${i} ${revision}\n`);
}
