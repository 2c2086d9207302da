/** After some wrong tries in a row the next one has to wait, longer each time: by sender, and for all senders together. */

const FREE_TRIES = 3;
const LONGEST_MS = 60_000;
const MOST_SENDERS = 10_000;

type Tries = { wrong: number; until: number };

export class SlowDown {
  private readonly senders = new Map<string, Tries>();
  /** Somebody who has many addresses is slowed down too, later on. */
  private readonly all: Tries = { wrong: 0, until: 0 };

  /** Milliseconds that a sender has to wait at `now`; 0: none. */
  wait(sender: string, now: number): number {
    return Math.max(0, (this.senders.get(sender)?.until ?? 0) - now, this.all.until - now);
  }

  wrong(sender: string, now: number): void {
    if (this.senders.size > MOST_SENDERS) this.senders.clear();
    const tries = this.senders.get(sender) ?? { wrong: 0, until: 0 };
    this.senders.set(sender, tries);
    count(tries, FREE_TRIES, now);
    count(this.all, FREE_TRIES * 20, now);
  }

  right(sender: string): void {
    this.senders.delete(sender);
  }
}

function count(tries: Tries, free: number, now: number): void {
  tries.wrong++;
  const beyond = tries.wrong - free;
  if (beyond >= 0) tries.until = now + Math.min(LONGEST_MS, 1000 * 2 ** Math.min(beyond, 10));
}
