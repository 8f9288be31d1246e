import { HubConnectionBuilder, HubConnectionState, LogLevel } from "@microsoft/signalr";
import * as Y from "yjs";
import { standing } from "../../../api/standing";
import { Keeping } from "./keeping";

/** Somebody who has the page open. */
export interface Here {
  id: number;
  name: string;
  writes: boolean;
}

/** Why the server took something not, and what to do. */
export interface Shut {
  code: string;
  what: string;
  mend: string;
}

/** How things stand between this page and the others. */
export interface PageStanding {
  /** Opened at least once: what is shown is the page. */
  opened: boolean;
  /** The way to the server is there. */
  joined: boolean;
  /** Everything typed here is kept there. */
  kept: boolean;
  mayWrite: boolean;
  /** Most characters that the page may have, as the server says. */
  most: number;
  here: readonly Here[];
  shut: Shut | null;
}

interface Answer<T> {
  answer: T | null;
  refusal: Shut | null;
}

interface Opened {
  update: string;
  vector: string;
  mayWrite: boolean;
  most: number;
}

/** Told apart from what is typed here. */
const server = "server";

/** Letters that come together within so many milliseconds are sent as one. */
const together = 120;

const bytes = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0));

function base64(b: Uint8Array): string {
  let text = "";
  for (let i = 0; i < b.length; i += 8192) text += String.fromCharCode(...b.subarray(i, i + 8192));
  return btoa(text);
}

/** How a page is kept in this browser until the server has it. */
export const keptUnder = (classId: number, itemId: number) =>
  `${standing.person}/together:${classId}:${itemId}`;

/**
 * A page that several write at once. What is typed is in the document at once, goes to the server a moment later, and is kept in
 * this browser until the server has kept it: cut off, reloaded or refused, nothing typed is lost.
 */
export class SharedPage {
  readonly doc = new Y.Doc();
  readonly text = this.doc.getText("text");
  private now: PageStanding = {
    opened: false,
    joined: false,
    kept: true,
    mayWrite: false,
    most: Infinity,
    here: [],
    shut: null,
  };
  private readonly listeners = new Set<() => void>();
  private pending: Uint8Array[] = [];
  private sending = false;
  private ended = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly keeping: Keeping;
  private readonly hub = new HubConnectionBuilder()
    .withUrl("/api/together")
    .withAutomaticReconnect({
      nextRetryDelayInMilliseconds: ({ previousRetryCount }) => Math.min(8000, 500 * 2 ** previousRetryCount),
    })
    // A way that is dead is noticed soon.
    .withServerTimeout(9000)
    .withKeepAliveInterval(3000)
    .configureLogging(LogLevel.None)
    .build();

  constructor(
    private readonly classId: number,
    private readonly itemId: number,
  ) {
    this.keeping = new Keeping(keptUnder(classId, itemId), () => base64(Y.encodeStateAsUpdate(this.doc)));
    const before = this.keeping.before;
    if (before) Y.applyUpdate(this.doc, bytes(before), server);
    this.doc.on("update", (update: Uint8Array, from: unknown) => {
      if (from === server) return;
      this.pending.push(update);
      this.set({ kept: false });
      this.keeping.keep();
      this.soon();
    });
    this.hub.on("Wrote", (item: number, update: string) => {
      if (item === this.itemId) Y.applyUpdate(this.doc, bytes(update), server);
    });
    this.hub.on("Here", (item: number, here: Here[]) => {
      if (item === this.itemId) this.set({ here });
    });
    // Not ours to read any more: asked anew, the server says why.
    this.hub.on("Shut", (item: number) => {
      if (item === this.itemId) void this.open();
    });
    this.hub.onreconnecting(() => this.set({ joined: false, here: [] }));
    this.hub.onreconnected(() => void this.open());
    this.hub.onclose(() => {
      this.set({ joined: false, here: [] });
      if (!this.ended) this.again();
    });
    void this.start();
  }

  readonly standing = () => this.now;

  /** The text as it reads now. */
  words(): string {
    // eslint-disable-next-line @typescript-eslint/no-base-to-string -- a text of Yjs is its words
    return this.text.toString();
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => {
      this.listeners.delete(listener);
    };
  };

  /** Shuts it; what the server has not kept stays in this browser. */
  end() {
    this.ended = true;
    clearTimeout(this.timer);
    if (!this.now.kept) this.keeping.now();
    void this.flush().finally(() => void this.hub.stop());
  }

  private set(next: Partial<PageStanding>) {
    this.now = { ...this.now, ...next };
    for (const l of this.listeners) l();
  }

  private async start() {
    try {
      await this.hub.start();
      await this.open();
    } catch {
      this.again();
    }
  }

  private again() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.start(), 2000);
  }

  // What came meanwhile comes in, what was typed meanwhile goes out; said again, it is there once.
  private async open() {
    const { answer, refusal } = await this.hub.invoke<Answer<Opened>>(
      "Open",
      this.classId,
      this.itemId,
      base64(Y.encodeStateVector(this.doc)),
    );
    if (!answer) return this.refused(refusal!);
    this.pending = [];
    Y.applyUpdate(this.doc, bytes(answer.update), server);
    const mine = Y.encodeStateAsUpdate(this.doc, bytes(answer.vector));
    const { structs, ds } = Y.decodeUpdate(mine);
    const more =
      structs.length > 0 || (ds.clients.size > 0 && !this.now.kept) || this.keeping.before !== null;
    this.set({ opened: true, joined: true, mayWrite: answer.mayWrite, most: answer.most, shut: null });
    if (more && answer.mayWrite) this.pending.push(mine);
    // What was typed and may not be written any more is here alone, until it is copied or left.
    else if (more) this.set({ kept: false });
    else this.allKept();
    await this.flush();
  }

  private refused(refusal: Shut) {
    if (refusal.code === "signed-out")
      void standing.renewal().then(async () => {
        await this.hub.stop();
      });
    else
      this.set({ shut: refusal, mayWrite: false, joined: this.hub.state === HubConnectionState.Connected });
  }

  private allKept() {
    if (this.pending.length > 0 || this.sending) return;
    this.keeping.drop();
    this.set({ kept: true });
  }

  private soon() {
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      void this.flush();
    }, together);
  }

  private async flush() {
    if (this.sending || this.pending.length === 0 || !this.now.joined) return;
    const update = Y.mergeUpdates(this.pending);
    const batch = this.pending;
    this.pending = [];
    this.sending = true;
    try {
      const { refusal } = await this.hub.invoke<Answer<boolean>>(
        "Write",
        this.classId,
        this.itemId,
        base64(update),
      );
      if (refusal) {
        this.pending = [...batch, ...this.pending];
        this.refused(refusal);
        return;
      }
    } catch {
      // The way is gone: opened anew, all that the server lacks goes. Where it is there, it could not be kept: tried again.
      this.pending = [...batch, ...this.pending];
      this.timer ??= setTimeout(() => {
        this.timer = undefined;
        void this.flush();
      }, 2000);
      return;
    } finally {
      this.sending = false;
    }
    if (this.pending.length > 0) await this.flush();
    else this.allKept();
  }
}
