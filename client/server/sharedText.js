// What the server asks of Yjs, in one object: bundled by `npm run server-text` into the server, which runs it without a browser.
import * as Y from "yjs";

const name = "text";

globalThis.sharedText = () => {
    let doc = new Y.Doc();
    const text = () => doc.getText(name);
    return {
        apply: (update) => Y.applyUpdate(doc, update),
        text: () => text().toString(),
        length: () => text().length,
        state: () => Y.encodeStateAsUpdate(doc),
        since: (vector) => Y.encodeStateAsUpdate(doc, vector),
        vector: () => Y.encodeStateVector(doc),
        // Something waits for what has not come yet.
        lacks: () => doc.store.pendingStructs !== null || doc.store.pendingDs !== null,
        // Changes the text to another by what differs in the middle.
        become: (next) => {
            const was = text().toString();
            let from = 0;
            const most = Math.min(was.length, next.length);
            while (from < most && was.charCodeAt(from) === next.charCodeAt(from)) from += 1;
            let end = 0;
            while (
                end < most - from &&
                was.charCodeAt(was.length - 1 - end) === next.charCodeAt(next.length - 1 - end)
            )
                end += 1;
            const before = Y.encodeStateVector(doc);
            doc.transact(() => {
                text().delete(from, was.length - from - end);
                text().insert(from, next.slice(from, next.length - end));
            });
            return Y.encodeStateAsUpdate(doc, before);
        },
    };
};
