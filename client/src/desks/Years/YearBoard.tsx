import Link from "@mui/material/Link";
import { useMemo, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import { useQuery } from "@tanstack/react-query";
import { api, take, type Schemas } from "../../api/client";
import { useBoard, useSchool } from "../../api/queries";
import { Desk, Empty } from "../../parts/Desk";
import { ChooseInList, ListBar } from "../../parts/ListBar";
import { useKeyList } from "../../parts/keys";
import { FeedLine } from "../Rosters/FeedLine";
import { EnrollPlaces } from "../../parts/EnrollPlaces";
import { Problem } from "../../parts/Problem";
import { count } from "../../parts/words";
import { BoardSlip } from "./BoardSlip";
import { BoardTable } from "./BoardTable";
import { linesOf, type Filter, type Grouping, type Season, type Sorting } from "./boardRows";

const titles: Partial<Record<Season, string>> = {
  roster: "Enroll",
  work: "Work",
  close: "Close",
  nextYear: "Roll over",
};
const groupings = [
  ["lead", "lead teacher"],
  ["course", "course"],
  ["department", "department"],
  ["none", "not grouped"],
] as const;
const keyList: [string, string][] = [
  ["↑ ↓", "go from class to class"],
  ["← →", "go from season to season of a class"],
  ["Space", "tick the class; with Shift all from the one before"],
  ["Enter", "open the class"],
];

/** Home: one row a class, one column a season. Which classes want me now? */
export function YearBoard({ me, season }: { me: Schemas["Me"]; season?: Season }) {
  const school = useSchool();
  const [address, setAddress] = useSearchParams();
  const asked = address.get("year") ? Number(address.get("year")) : undefined;
  const narrowed = address.get("combined") ? Number(address.get("combined")) : undefined;
  const board = useBoard(asked, narrowed);
  const filter = (address.get("show") ?? "all") as Filter;
  const grouping = (address.get("group") ?? (me.role === "Coordinator" ? "lead" : "course")) as Grouping;
  const onlyWanting = address.get("wanting") !== "no";
  const sorting = (address.get("sort") ?? "name") as Sorting;
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set());
  useKeyList(keyList);
  const set = (name: string, value: string) =>
    setAddress((a) => {
      a.set(name, value);
      return a;
    });
  const combined = useQuery({
    queryKey: ["combined"],
    queryFn: () => take(api.GET("/api/combined")),
  });
  const ofYear = (combined.data ?? []).filter((r) => r.year === board.data?.year);
  const roster = ofYear.find((r) => r.id === narrowed);
  const data = board.data;
  const lines = useMemo(
    () => linesOf(data?.rows ?? [], { filter, grouping, sorting, season, onlyWanting }),
    [data, filter, grouping, sorting, season, onlyWanting],
  );
  const rows = data?.rows.filter((r) => ticked.has(r.id)) ?? [];
  const title = season ? titles[season]! : `Year board, ${data?.yearLabel ?? ""}`;
  return (
    <Desk
      title={title}
      wide
      lead={
        data && <Summary data={data} season={season} shown={lines.filter((l) => l.kind === "row").length} />
      }
      slip={<BoardSlip rows={rows} me={me} />}
    >
      {season === "roster" && <EnrollPlaces me={me} />}
      {season === "roster" && me.role === "Coordinator" && <FeedLine />}
      <Problem error={board.error} />
      <ListBar
        label="Show"
        show={filter}
        kinds={[
          ["all", "All", data?.rows.length ?? 0],
          ["blocked", "Blocked", data?.blocked ?? 0],
          ["attention", "Wants attention", data?.attention ?? 0],
          ["ready", "Ready", data?.ready ?? 0],
        ]}
        onShow={(v) => set("show", v)}
        beside={
          season && (
            <Link
              component="button"
              variant="body2"
              onClick={() => set("wanting", onlyWanting ? "no" : "yes")}
            >
              {onlyWanting ? "Show all classes" : "Only what wants somebody here"}
            </Link>
          )
        }
      >
        <ChooseInList
          label="School year"
          value={String(data?.year ?? "")}
          choices={(school.data?.years ?? []).map((y) => [String(y.id), y.label])}
          minWidth={92}
          onChange={(v) =>
            setAddress((a) => {
              a.set("year", v);
              a.delete("combined");
              return a;
            })
          }
        />
        {ofYear.length > 0 && (
          <ChooseInList
            label="Combined roster"
            value={roster ? String(roster.id) : ""}
            choices={ofYear.map((r) => [String(r.id), r.name])}
            all="all classes"
            minWidth={130}
            onChange={(v) =>
              setAddress((a) => {
                if (v) a.set("combined", v);
                else a.delete("combined");
                return a;
              })
            }
          />
        )}
        <ChooseInList
          label="Grouped by"
          value={grouping}
          choices={groupings}
          onChange={(v) => set("group", v)}
        />
      </ListBar>
      {data && lines.length === 0 ? (
        <Empty
          title={
            data.rows.length === 0 ? "No class in this school year yet." : "No class here wants anybody."
          }
        >
          {data.rows.length === 0 ? (
            <Link component={RouterLink} to="/set-up">
              Make the first class
            </Link>
          ) : (
            "That is good news."
          )}
        </Empty>
      ) : (
        <BoardTable
          lines={lines}
          ticked={ticked}
          setTicked={setTicked}
          season={season}
          sorting={sorting}
          onSort={(v) => set("sort", v)}
        />
      )}
    </Desk>
  );
}

function Summary({ data, season, shown }: { data: Schemas["BoardView"]; season?: Season; shown: number }) {
  if (season)
    return (
      <>
        <strong>{count(shown, "class", "classes")}</strong> of {data.rows.length} want somebody here, school
        year {data.yearLabel}.
      </>
    );
  if (data.rows.length === 0) return null;
  return (
    <>
      <strong>{count(data.daysLeft, "school day", "school days")}</strong> left.{" "}
      <strong>
        {data.ready} of {data.rows.length}
      </strong>{" "}
      classes are ready to close, <strong>{data.blocked}</strong> still hold{" "}
      {count(data.heldPieces, "piece of work", "pieces of work")}, <strong>{data.attention}</strong> want
      attention.
    </>
  );
}
