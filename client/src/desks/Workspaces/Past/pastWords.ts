import type { Schemas } from "../../../api/client";

export type Hit = Schemas["PastHit"];

export const kinds: Record<Hit["kind"], string> = {
  File: "file",
  Link: "link",
  Page: "page",
  Assignment: "assignment",
  Folder: "folder",
};

export const where: Record<Hit["where"], string> = {
  Loft: "in the loft",
  Bank: "bank",
  KeptCopy: "kept copy",
  OtherClass: "a class of yours",
};
