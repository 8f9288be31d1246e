import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { sayBytes } from "./words";
import { PlainTable } from "./table/PlainTable";

type Item = Schemas["ItemView"];

const kinds: Record<Item["kind"], string> = { File: "file", Link: "link", Page: "page" };

/** What stands in a folder, a row a thing. */
export function ThingTable(props: {
  classId: number;
  folder: string;
  items: Item[];
  before?: ReactNode;
  onPage: (id: number) => void;
  acts?: (item: Item) => ReactNode;
}) {
  return (
    <PlainTable
      label={`In ${props.folder}`}
      name="things of a folder"
      bare={props.items.length < 5}
      before={props.before}
      rows={props.items}
      id={(i) => i.id}
      columns={[
        {
          head: "Name",
          look: "any",
          says: (i) => i.name,
          by: (i) => i.name,
          cell: (i) => <ItemName item={i} classId={props.classId} onPage={props.onPage} />,
        },
        {
          head: "What",
          look: "soft",
          cell: (i) =>
            `${kinds[i.kind]}${i.folders.length > 1 ? `, in ${i.folders.length} folders` : ""}${i.asks || i.asked?.own ? ", to be acknowledged" : ""}`,
        },
        { head: "Put in by", look: "soft", cell: (i) => i.addedBy },
        props.acts !== undefined && { head: "", align: "right", cell: props.acts },
      ]}
    />
  );
}

/** One item in a list: its name leads to its bytes, its site, or its page. */
export function ItemName({
  item,
  classId,
  onPage,
}: {
  item: Pick<Item, "id" | "kind" | "name" | "size" | "url">;
  classId: number;
  onPage?: (id: number) => void;
}) {
  if (item.kind === "Link")
    return (
      <a href={item.url ?? "#"} target="_blank" rel="noreferrer noopener">
        {item.name}
      </a>
    );
  if (item.kind === "Page" && onPage)
    return (
      <Link
        component="button"
        onClick={() => onPage(item.id)}
        sx={{ fontSize: "inherit", textAlign: "left" }}
      >
        {item.name}
      </Link>
    );
  return (
    <>
      <a href={`/api/classes/${classId}/items/${item.id}/content`} download>
        {item.name}
      </a>{" "}
      <Box component="span" sx={{ color: "text.secondary", fontSize: 12.5 }}>
        {item.kind === "File" && item.size != null && sayBytes(item.size)}
      </Box>
    </>
  );
}
