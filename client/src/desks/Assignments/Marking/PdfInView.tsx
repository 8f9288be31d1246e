import Box from "@mui/material/Box";
import { getDocument, GlobalWorkerOptions, type PDFDocumentProxy } from "pdfjs-dist";
import worker from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useRef, useState } from "react";

GlobalWorkerOptions.workerSrc = worker;

/** The pages of a PDF, drawn as they come into sight, without anything in it being run; its words can be heard. */
export function PdfInView({ at, name, onBroken }: { at: string; name: string; onBroken: () => void }) {
  const [pdf, setPdf] = useState<PDFDocumentProxy | null>(null);
  useEffect(() => {
    const task = getDocument({ url: at, enableXfa: false });
    let gone = false;
    task.promise.then(
      (d) => !gone && setPdf(d),
      () => !gone && onBroken(),
    );
    return () => {
      gone = true;
      void task.destroy();
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the address says which file it is
  }, [at]);
  if (!pdf) return <Box role="status">Opening {name}…</Box>;
  return (
    <>
      {Array.from({ length: pdf.numPages }, (_, n) => (
        <PdfPage key={n} pdf={pdf} number={n + 1} label={`${name}, page ${n + 1} of ${pdf.numPages}`} />
      ))}
    </>
  );
}

function PdfPage({ pdf, number, label }: { pdf: PDFDocumentProxy; number: number; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [words, setWords] = useState("");
  useEffect(() => {
    const el = canvas.current!;
    let stop: (() => void) | undefined;
    const watch = new IntersectionObserver(
      ([entry]) => {
        if (!entry?.isIntersecting) return;
        watch.disconnect();
        void draw(pdf, number, el).then(
          (drawn) => {
            stop = drawn.stop;
            setWords(drawn.words);
          },
          () => {},
        );
      },
      { rootMargin: "600px" },
    );
    watch.observe(el);
    return () => {
      watch.disconnect();
      stop?.();
    };
  }, [pdf, number]);
  return (
    <>
      <canvas ref={canvas} className="pdf-page" aria-label={label} role="img" />
      <span className="only-heard">{words}</span>
    </>
  );
}

async function draw(pdf: PDFDocumentProxy, number: number, canvas: HTMLCanvasElement) {
  const page = await pdf.getPage(number);
  const natural = page.getViewport({ scale: 1 });
  // Sharp on screens with small pixels; no sharper than an eye sees, for the memory of an old tablet.
  const scale = (canvas.clientWidth / natural.width) * Math.min(2, window.devicePixelRatio || 1);
  const viewport = page.getViewport({ scale });
  canvas.width = Math.floor(viewport.width);
  canvas.height = Math.floor(viewport.height);
  const task = page.render({ canvas, viewport });
  await task.promise;
  const content = await page.getTextContent();
  return {
    words: content.items.map((i) => ("str" in i ? i.str : "")).join(" "),
    stop: () => {
      task.cancel();
      page.cleanup();
    },
  };
}
