import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, type UseMutationResult } from "@tanstack/react-query";
import { toDataURL } from "qrcode";
import { useEffect, useState } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import { api, take, type ProblemError, type Schemas } from "../../api/client";
import { useHead, useSchool } from "../../api/queries";
import { useAct } from "../../api/useAct";
import { Ask } from "../../parts/Ask";
import { ClassBar } from "../../parts/ClassBar";
import { Desk, Empty } from "../../parts/Desk";
import { Problem } from "../../parts/Problem";
import { StateMark } from "../../parts/StateMark";
import { count, sayDay } from "../../parts/words";

type Slip = Schemas["Slip"];
type Shown = Schemas["ShownSlip"];

/** Sign-in slips of a class's students. */
export function ClassSlips() {
  const id = Number(useParams().id);
  const head = useHead(id);
  const path = { params: { path: { classId: id } } };
  const slips = useQuery({
    queryKey: ["slips", id],
    queryFn: () => take(api.GET("/api/classes/{classId}/slips", path)),
  });
  const renew = useAct((people: number[], headers) =>
    take(api.POST("/api/classes/{classId}/slips", { ...path, body: { people }, headers })),
  );
  const yes = useAct((people: number[], headers) =>
    take(api.POST("/api/classes/{classId}/slips/yes", { ...path, body: { people }, headers })),
  );
  return (
    <Slips
      who={["student", "students"]}
      lead={head.data && <ClassBar head={head.data} />}
      slips={slips.data}
      error={head.error ?? slips.error}
      renew={renew}
      show={(people) =>
        take(api.GET("/api/classes/{classId}/slips/shown", { params: { ...path.params, query: { people } } }))
      }
      yes={yes}
      pdf={`/api/classes/${id}/slips/pdf`}
      back={[`/classes/${id}/enroll`, "Back to the roster"]}
      none="Nobody is on the roster yet."
    />
  );
}

/** Sign-in slips of whoever is ticked in the directory, staff too. */
export function PeopleSlips() {
  const [search] = useSearchParams();
  const people = (search.get("people") ?? "").split(",").map(Number).filter(Boolean);
  const slips = useQuery({
    queryKey: ["slips", "people", people],
    enabled: people.length > 0,
    queryFn: () => take(api.GET("/api/people/slips", { params: { query: { people } } })),
  });
  const renew = useAct((ids: number[], headers) =>
    take(api.POST("/api/people/slips", { body: { people: ids }, headers })),
  );
  return (
    <Slips
      who={["person", "people"]}
      slips={people.length > 0 ? slips.data : []}
      error={slips.error}
      renew={renew}
      show={(ids) => take(api.GET("/api/people/slips/shown", { params: { query: { people: ids } } }))}
      pdf="/api/people/slips/pdf"
      back={["/enroll/directory", "Back to the directory"]}
      none="Nobody is ticked who can sign in."
    />
  );
}

/** Who has a slip to print, who has a password of their own by now, and the print itself. */
function Slips(props: {
  who: [string, string];
  lead?: React.ReactNode;
  slips?: Slip[];
  error: unknown;
  renew: UseMutationResult<unknown, ProblemError, number[]>;
  /** Reads first passwords; each reading is noted. */
  show: (people: number[]) => Promise<Shown[]>;
  /** A coordinator's yes to the class's staff; absent where that is not a question. */
  yes?: UseMutationResult<unknown, ProblemError, number[]>;
  pdf: string;
  back: [string, string];
  none: string;
}) {
  const school = useSchool();
  const { renew } = props;
  const [one, many] = props.who;
  const address = school.data?.address ?? "";
  const code = useQuery({
    queryKey: ["qr", address],
    enabled: address !== "",
    staleTime: Infinity,
    queryFn: () => toDataURL(address, { margin: 0, errorCorrectionLevel: "M" }),
  });
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [asking, setAsking] = useState<Slip[] | null>(null);
  const asked = asking ?? [];
  const ends = asked.filter((s) => s.hasOwn).length;
  const all = props.slips ?? [];
  const ticked = all.filter((s) => !left.has(s.person));
  const printed = ticked.filter((s) => s.waits && s.bar === "None");
  const without = ticked.filter((s) => !s.waits && s.mayMake);
  const own = without.filter((s) => s.hasOwn).length;
  const shut = ticked.filter((s) => s.bar !== "None" || (!s.waits && !s.mayMake));
  const waiting = ticked.filter((s) => s.forClass === "TooNew" && s.bar === "None");
  const show = useMutation({ mutationFn: props.show });
  const { data: shown, reset } = show;
  // Printed once it stands on the sheet, and gone from the page after.
  useEffect(() => {
    if (!shown) return;
    const gone = () => reset();
    window.addEventListener("afterprint", gone);
    window.print();
    return () => window.removeEventListener("afterprint", gone);
  }, [shown, reset]);
  const toggle = (person: number) =>
    setLeft((l) => {
      const next = new Set(l);
      if (!next.delete(person)) next.add(person);
      return next;
    });
  return (
    <>
      <Box sx={{ "@media print": { display: "none" } }}>
        <Desk
          title="Sign-in slips"
          wide
          lead={props.lead}
          slip={
            <>
              <Typography variant="h2">{count(printed.length, "slip", "slips")} to print</Typography>
              <Typography>
                Eight to a page, on A4 or Letter, with lines to cut along. A first password stands on a slip
                until it has been used, and never after.
              </Typography>
              <Button
                variant="contained"
                disabled={printed.length === 0 || show.isPending || renew.isPending}
                onClick={() => show.mutate(printed.map((s) => s.person))}
              >
                Print {count(printed.length, "slip", "slips")}…
              </Button>
              {printed.length > 0 && (
                <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
                  <Typography variant="body2" sx={{ flexBasis: "100%" }}>
                    As PDF, eight to a page or a letter each:
                  </Typography>
                  {(
                    [
                      ["A4", false, "A4"],
                      ["Letter", false, "Letter"],
                      ["A4", true, "letters, A4"],
                      ["Letter", true, "letters, Letter"],
                    ] as const
                  ).map(([paper, letters, name]) => (
                    <Link
                      key={name}
                      download
                      variant="body2"
                      href={`${props.pdf}?paper=${paper}&letters=${letters}${printed.map((s) => `&people=${s.person}`).join("")}`}
                    >
                      {name}
                    </Link>
                  ))}
                </Box>
              )}
              {without.length > 0 && (
                <>
                  <Typography>
                    {count(without.length, `ticked ${one} has`, `ticked ${many} have`)} no slip
                    {own > 0 &&
                      (own === 1 && without.length === 1
                        ? ": a password of their own, which would end, was chosen"
                        : own === without.length
                          ? ": they chose passwords of their own, which would end"
                          : `; ${own} of them chose a password of their own, which would end`)}
                    .
                  </Typography>
                  <Button variant="outlined" onClick={() => setAsking(without)}>
                    Make {count(without.length, "new slip", "new slips")}…
                  </Button>
                </>
              )}
              {shut.length > 0 && (
                <Typography>
                  {count(shut.length, `ticked ${one} is`, `ticked ${many} are`)} not among these slips: the
                  list says why. A coordinator can say yes, or make them in the directory.
                </Typography>
              )}
              {props.yes && waiting.length > 0 && (
                <>
                  <Typography>
                    {count(waiting.length, `ticked ${one} was`, `ticked ${many} were`)} put on the roster by
                    hand: the staff of the class do not have{" "}
                    {waiting.length === 1 ? "that slip" : "those slips"} yet, unless you say yes.
                  </Typography>
                  <Button
                    variant="outlined"
                    disabled={props.yes.isPending}
                    onClick={() => props.yes!.mutate(waiting.map((s) => s.person))}
                  >
                    Let the class have {count(waiting.length, "slip", "slips")}
                  </Button>
                </>
              )}
              {props.yes?.isSuccess && (
                <Typography role="status">The staff of the class may have them now.</Typography>
              )}
              <Problem error={renew.error ?? show.error ?? props.yes?.error} />
              <Button component={RouterLink} to={props.back[0]} sx={{ alignSelf: "start", ml: -1.75 }}>
                {props.back[1]}
              </Button>
            </>
          }
        >
          <Problem error={props.error} />
          {props.slips && all.length === 0 && (
            <Empty title={props.none}>A slip is for somebody who is to sign in for the first time.</Empty>
          )}
          {all.length > 0 && (
            <FormControlLabel
              control={
                <Checkbox
                  checked={left.size === 0}
                  onChange={() => setLeft(left.size === 0 ? new Set(all.map((s) => s.person)) : new Set())}
                />
              }
              label={`all ${all.length}`}
            />
          )}
          <Box
            component="ul"
            aria-label="Slips"
            sx={{
              listStyle: "none",
              m: 0,
              p: 0,
              display: "grid",
              gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "1fr 1fr" },
              columnGap: 3,
            }}
          >
            {all.map((s) => (
              <Box
                component="li"
                key={s.person}
                sx={{
                  borderTop: 1,
                  borderColor: "divider",
                  display: "flex",
                  alignItems: "center",
                  flexWrap: { xs: "wrap", md: "nowrap" },
                  gap: 1,
                }}
              >
                <Checkbox
                  checked={!left.has(s.person)}
                  onChange={() => toggle(s.person)}
                  slotProps={{ input: { "aria-label": `Slip of ${s.name}` } }}
                />
                <Box sx={{ flex: 1, minWidth: 0, py: 0.5 }}>
                  {s.sortName}
                  {whyNot(s) && (
                    <Typography variant="body2" sx={{ color: "text.secondary" }}>
                      {whyNot(s)}
                    </Typography>
                  )}
                </Box>
                {s.waits ? (
                  <StateMark mark="underway">not used yet</StateMark>
                ) : (
                  <StateMark mark={s.hasOwn ? "done" : "notYet"}>
                    {s.hasOwn ? "own password" : "no slip"}
                  </StateMark>
                )}
                <Button
                  disabled={renew.isPending || !s.mayMake}
                  onClick={() => (s.hasOwn ? setAsking([s]) : renew.mutate([s.person]))}
                  aria-label={`New slip for ${s.name}`}
                >
                  New slip{s.hasOwn && "…"}
                </Button>
              </Box>
            ))}
          </Box>
        </Desk>
      </Box>
      <Sheet slips={shown ?? []} address={address} code={code.data} school={school.data?.name ?? ""} />
      <Ask
        open={asking !== null}
        title={
          asked.length === 1
            ? `Make a new slip for ${asked[0]!.name}?`
            : `Make ${count(asked.length, "new slip", "new slips")}?`
        }
        act={`Make ${count(asked.length, "new slip", "new slips")}`}
        busy={renew.isPending}
        error={renew.error}
        onAct={() =>
          renew.mutate(
            asked.map((s) => s.person),
            { onSuccess: () => setAsking(null) },
          )
        }
        onClose={() => setAsking(null)}
      >
        <Typography>
          Each gets a new first password.
          {ends > 0 &&
            ` ${count(ends, `${one} has`, `${many} have`)} one of their own: it ends, and they are signed out wherever they are signed in.`}{" "}
          This can&rsquo;t be undone; another slip can always be made.
        </Typography>
      </Ask>
    </>
  );
}

/** What keeps one from somebody's slip; null where nothing does. */
function whyNot(s: Slip): string | null {
  if (s.bar === "IsStaff") return "is staff in the school: a coordinator has their slip";
  if (s.bar === "TooNew") return `enrolled by hand: yours on ${sayDay(s.from!)}, or on a coordinator’s yes`;
  if (s.forClass === "TooNew") return `enrolled by hand: the class has it on ${sayDay(s.from!)}`;
  if (s.hasOwn && !s.mayMake) return "only a coordinator can end a password of their own";
  return null;
}

/** What comes out of the printer: eight slips a page, with lines to cut along. */
function Sheet(props: { slips: Shown[]; address: string; code?: string; school: string }) {
  return (
    <Box
      aria-hidden="true"
      data-sheet
      sx={{
        display: "none",
        "@media print": { display: "grid" },
        gridTemplateColumns: "1fr 1fr",
        color: "#000",
        bgcolor: "#fff",
      }}
    >
      {props.slips.map((s) => (
        <Box
          key={s.person}
          sx={{
            border: "0.5pt dashed #777",
            m: "-0.25pt",
            p: "5mm",
            height: "62mm",
            boxSizing: "border-box",
            overflow: "hidden",
            breakInside: "avoid",
            display: "flex",
            flexDirection: "column",
            justifyContent: "space-between",
          }}
        >
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: "4mm" }}>
            <Box sx={{ minWidth: 0 }}>
              <Box sx={{ fontSize: "13pt", fontWeight: 700, lineHeight: 1.2, overflowWrap: "anywhere" }}>
                {s.name}
              </Box>
              <Box sx={{ fontSize: "9pt" }}>
                {props.school}
                {s.grade && `, grade ${s.grade}`}
              </Box>
            </Box>
            {props.code && (
              <Box
                component="img"
                src={props.code}
                alt=""
                sx={{ width: "20mm", height: "20mm", flex: "none" }}
              />
            )}
          </Box>
          <Box sx={{ fontSize: "10pt", lineHeight: 1.5 }}>
            Open <strong>{props.address}</strong>
            <br />
            User name <strong>{s.userName}</strong>
            <br />
            First password <strong>{s.phrase}</strong>
          </Box>
          <Box sx={{ fontSize: "8pt" }}>You are asked for a password of your own the first time.</Box>
        </Box>
      ))}
    </Box>
  );
}
