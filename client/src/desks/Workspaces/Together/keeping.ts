/** What is kept in this browser until the server has it; written a moment after the last change, not at each key. */
export class Keeping {
  /** What was kept by an earlier look at the same; null for nothing. */
  readonly before: string | null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly key: string,
    private readonly make: () => string,
    private readonly store: Pick<Storage, "getItem" | "setItem" | "removeItem"> = sessionStorage,
  ) {
    this.before = store.getItem(key);
  }

  keep() {
    this.timer ??= setTimeout(() => this.now(), 300);
  }

  now() {
    this.stop();
    try {
      this.store.setItem(this.key, this.make());
    } catch {
      /* The browser has no room for it: it stays in the open page alone, and leaving that is asked about. */
    }
  }

  drop() {
    this.stop();
    this.store.removeItem(this.key);
  }

  private stop() {
    clearTimeout(this.timer);
    this.timer = undefined;
  }
}
