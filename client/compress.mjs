// Beside each file of the build that is text stand two smaller ones, made once as small as they get: the server sends the one that a browser takes.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";

const least = 1000;
const folder = join(import.meta.dirname, "dist/assets");
for (const name of readdirSync(folder).filter((f) => /\.(m?js|css|svg)$/.test(f))) {
  const bytes = readFileSync(join(folder, name));
  if (bytes.length < least) continue;
  writeFileSync(
    join(folder, `${name}.br`),
    brotliCompressSync(bytes, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
        [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
      },
    }),
  );
  writeFileSync(join(folder, `${name}.gz`), gzipSync(bytes, { level: 9 }));
}
