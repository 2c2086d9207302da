/** Takes the passcode and gives the cookie that lets a browser in. */
import * as v from "valibot";
import { cookieHead, isPasscode, isShared, keptAccess, passFor, SlowDown } from "@/access";
import { guarded, readBody, sayJson, sayProblem } from "../answer";

const Body = v.object({ passcode: v.pipe(v.string(), v.maxLength(200)) });
const slow = new SlowDown();

export function POST(request: Request) {
  return guarded(async () => {
    const body = await readBody(request, Body);
    if (!body.ok) return body.problem;
    if (!isShared()) return sayJson({});
    const sender = request.headers.get("x-forwarded-for") ?? "";
    const now = Date.now();
    const wait = slow.wait(sender, now);
    if (wait > 0)
      return sayProblem(`Too many wrong tries. Try again in ${Math.ceil(wait / 1000)} seconds.`, 429);
    const access = keptAccess();
    if (!access) return sayProblem("The passcode of this server cannot be read; ask whoever starts it.", 503);
    if (!isPasscode(access, body.value.passcode)) {
      slow.wrong(sender, now);
      return sayProblem("That is not the passcode.", 403);
    }
    slow.right(sender);
    const answer = sayJson({});
    answer.headers.set("set-cookie", cookieHead(passFor(access, now)));
    return answer;
  });
}
