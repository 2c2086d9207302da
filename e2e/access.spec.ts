/** Who gets in: pages of other websites change nothing, a shared server asks for its passcode, heads stand on every answer. */
import { mkdtempSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { type AddressInfo, connect } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { COOKIE, newAccess } from "../src/access";
import { startDemo } from "./application";
import { E2E_PORT } from "./browser";
import { copyOf, expect, expectAccessible, OURS, test } from "./fixtures";

/** A page of another website, served from this machine. */
async function otherSite(html: string) {
  const server = createServer((_, answer) => {
    answer.setHeader("content-type", "text/html");
    answer.end(html);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as AddressInfo;
  return { url: `http://127.0.0.1:${port}/`, close: () => server.close() };
}

test("a page of another website changes nothing, whatever it sends", async ({ page, baseURL, browser }) => {
  const id = await copyOf(page, "hl-204");
  const before = await (await page.request.get(`/api/jobs/${id}`)).json();
  const jobs = async () => (await (await page.request.get("/")).text()).match(/aria-label="Open /g)?.length;
  const count = await jobs();
  const edit = { expectedRevision: 1, edit: { kind: "changeInfo", set: { title: "Taken over" } } };
  const tries = [
    [`/api/jobs/${id}/edits`, "POST", edit],
    [`/api/jobs/${id}/steps`, "POST", { step: "undo", expectedRevision: 1, id: "s" }],
    [`/api/jobs/${id}/duplicate`, "POST", {}],
    [`/api/jobs/${id}`, "DELETE", {}],
    ["/api/jobs", "POST", { code: "X", title: "X", unit: "mm" }],
  ] as const;
  const site = await otherSite("<!doctype html><title>Elsewhere</title><iframe name=hidden></iframe>");
  const context = await browser.newContext();
  const stranger = await context.newPage();
  await stranger.goto(site.url);
  const statuses = await stranger.evaluate(
    async ({ base, tries }) => {
      const told: string[] = [];
      for (const [path, method, body] of tries)
        for (const type of ["text/plain", "application/json"])
          for (const mode of ["no-cors", "cors"] as const) {
            const sent = { method, mode, body: JSON.stringify(body), headers: { "content-type": type } };
            const answer = await fetch(base + path, sent).catch(() => null);
            told.push(answer === null ? "blocked" : `${answer.type} ${answer.status}`);
          }
      // A form whose one field spells JSON.
      const form = document.createElement("form");
      form.method = "post";
      form.enctype = "text/plain";
      form.target = "hidden";
      form.action = `${base}/api/jobs`;
      const field = document.createElement("input");
      field.name = '{"code":"X","title":"X","unit":"mm","a":"';
      field.value = '"}';
      form.append(field);
      document.body.append(form);
      form.submit();
      await new Promise((resolve) => setTimeout(resolve, 500));
      return told;
    },
    { base: baseURL ?? "", tries },
  );
  // What is sent without being read comes back opaque; nothing comes back readable.
  expect(statuses.filter((one) => one !== "blocked" && one !== "opaque 0")).toEqual([]);
  await context.close();
  site.close();
  const after = await (await page.request.get(`/api/jobs/${id}`)).json();
  expect([after.revision, after.job]).toEqual([before.revision, before.job]);
  expect(await jobs()).toBe(count);
});

test("changes are taken as JSON, from pages of ours, under names of ours", async ({ request }) => {
  const data = JSON.stringify({ code: "N-1", title: "N", unit: "mm" });
  const status = async (headers: Record<string, string>) => {
    const answer = await request.post("/api/jobs", { data, headers });
    expect(((await answer.json()) as { message?: string }).message ?? "made").not.toBe("");
    return answer.status();
  };
  expect(await status({ ...OURS, "content-type": "application/json" })).toBe(201);
  expect(await status({ ...OURS, "content-type": "text/plain" })).toBe(415);
  expect(await status({ ...OURS, "content-type": "application/x-www-form-urlencoded" })).toBe(415);
  expect(await status({ "content-type": "application/json" })).toBe(403);
  expect(await status({ "sec-fetch-site": "cross-site", "content-type": "application/json" })).toBe(403);
  expect(await status({ origin: "http://elsewhere.example", "content-type": "application/json" })).toBe(403);
  expect(await status({ ...OURS, host: "elsewhere.example", "content-type": "application/json" })).toBe(421);
  expect((await request.get("/", { headers: { host: "elsewhere.example" } })).status()).toBe(421);
});

test("a request that does not arrive in time is let go", async () => {
  const port = E2E_PORT + 21;
  const application = await startDemo(port, { RUSTIC_TALLY_REQUEST_MS: "1000" });
  const socket = connect(port, "127.0.0.1");
  try {
    const heads = [
      "POST /api/jobs HTTP/1.1",
      `Host: localhost:${port}`,
      "Sec-Fetch-Site: same-origin",
      "Content-Type: application/json",
      "Content-Length: 1000",
    ];
    const answer = await new Promise<string>((resolve) => {
      let text = "";
      socket.on("data", (data) => {
        text += data;
      });
      socket.on("close", () => resolve(text));
      socket.write(`${heads.join("\r\n")}\r\n\r\n{`);
    });
    expect(answer).toMatch(/^HTTP\/1\.1 408 /);
    expect((await fetch(application.url)).status).toBe(200);
  } finally {
    socket.destroy();
    await application.stop();
  }
});

test("every answer carries its heads, and no page runs text as code", async ({
  browser,
  baseURL,
  request,
}) => {
  for (const path of ["/", "/jobs/hl-204", "/stockroom", "/nowhere", "/api/rack", "/api/jobs/nowhere"]) {
    const heads = (await request.get(path)).headers();
    expect(heads["x-content-type-options"]).toBe("nosniff");
    expect(heads["referrer-policy"]).toBe("same-origin");
    expect(heads["permissions-policy"]).toContain("camera=()");
    expect(heads["content-security-policy"]).toContain("frame-ancestors 'none'");
    expect(heads["content-security-policy"]).not.toContain("'unsafe-eval'");
    expect(heads["x-powered-by"]).toBeUndefined();
  }
  const [first, second] = [await request.get("/"), await request.get("/")].map(
    (answer) => /'nonce-([^']+)'/.exec(answer.headers()["content-security-policy"] ?? "")?.[1],
  );
  // Sixteen random bytes in base64, others each time.
  for (const nonce of [first, second]) expect(nonce).toMatch(/^[A-Za-z0-9+/]{22}==$/);
  expect(first).not.toBe(second);
  // Told in the console by the browser: on a page of its own, which is not watched for that.
  const stranger = await browser.newPage();
  await stranger.goto(`${baseURL}/`);
  const ran = await stranger.evaluate(() => {
    const script = document.createElement("script");
    script.textContent = "window.taken = true";
    document.body.append(script);
    return "taken" in window;
  });
  expect(ran).toBe(false);
  await stranger.close();
});

test("a server that is open to the shop asks for its passcode, for reading too", async ({ browser }) => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), "rustic-tally-access-")), "access.json");
  writeFileSync(file, JSON.stringify(newAccess("birch and steel")));
  const application = await startDemo(E2E_PORT + 20, { RUSTIC_TALLY_ACCESS: file });
  const context = await browser.newContext({ baseURL: application.url });
  const page = await context.newPage();
  try {
    for (const reading of [
      "/api/rack",
      "/api/jobs/hl-204",
      "/api/jobs/hl-204/file",
      "/api/jobs/hl-204/print",
    ])
      expect((await page.request.get(reading)).status()).toBe(401);
    await page.goto("/jobs/hl-204?stage=tally");
    await expect(page).toHaveURL(/\/enter\?to=/);
    await expectAccessible(page);
    await page.getByLabel("Passcode of the shop").fill("birch and brass");
    await page.getByRole("button", { name: "Enter" }).click();
    await expect(page.getByText("That is not the passcode.")).toBeVisible();
    await page.getByLabel("Passcode of the shop").fill("birch and steel");
    await page.getByRole("button", { name: "Enter" }).click();
    await expect(page.getByRole("heading", { name: /HL-204/ })).toBeVisible();
    const [cookie] = await context.cookies();
    expect(cookie).toMatchObject({ name: COOKIE, httpOnly: true, sameSite: "Strict" });
    expect((await page.request.get("/api/rack")).status()).toBe(200);
    // A cookie that somebody made up, or changed, lets nobody in.
    const value = cookie?.value ?? "";
    for (const forged of ["", `9${value}`, value.replace(/.$/, (sign) => (sign === "0" ? "1" : "0"))]) {
      const stranger = await browser.newContext({ baseURL: application.url });
      await stranger.addCookies([{ name: cookie?.name ?? "", value: forged, url: application.url }]);
      expect((await stranger.request.get("/api/rack")).status()).toBe(401);
      await stranger.close();
    }
    // Tries without end are slowed down: each wait is longer than the one before, so that no machine is slower than all of them.
    let status = 0;
    for (let i = 0; i < 12 && status !== 429; i++) {
      const tried = await page.request.post("/api/enter", {
        data: { passcode: `wrong ${i}` },
        headers: OURS,
      });
      status = tried.status();
    }
    expect(status).toBe(429);
    // Only back to a page of ours.
    await page.goto("/enter?to=//elsewhere.example/");
    await expect(page.getByLabel("Passcode of the shop")).toBeVisible();
    expect(await page.content()).not.toContain('//elsewhere.example/"');
  } finally {
    await context.close();
    await application.stop();
  }
});
